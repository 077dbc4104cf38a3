<!-- One sheet on the desk, for who is not signed in yet. -->
<template>
  <main class="plain">
    <article class="sheet">
      <header>
        <b>Lumbix</b>
        <span>Quotes, proposals and invoices from your deals</span>
      </header>
      <slot />
    </article>
  </main>
</template>

<style scoped>
.plain {
  display: grid;
  min-height: 100vh;
  padding: 32px 16px;
  place-items: center;
}
.sheet {
  width: 520px;
  max-width: 100%;
  background: var(--sheet);
  border-top: 3px solid var(--brass);
  box-shadow: var(--sheet-shadow);
}
header {
  display: flex;
  align-items: baseline;
  gap: 12px;
  margin: 0 36px;
  padding: 24px 0 12px;
  border-bottom: 1px solid var(--hairline);
}
header b {
  font: 600 22px/26px var(--serif);
  letter-spacing: -0.02em;
}
header span {
  color: var(--ink-quiet);
}
</style>
