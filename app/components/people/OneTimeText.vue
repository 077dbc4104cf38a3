<script setup lang="ts">
/** Something that is shown this once: a link, a token, recovery codes. */
const { text } = defineProps<{ text: string; what: string }>();
const copied = ref(false);

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(text);
  copied.value = true;
}
</script>

<template>
  <div class="once">
    <pre :aria-label="what">{{ text }}</pre>
    <div class="act">
      <Button :label="copied ? 'Copied' : 'Copy'" size="small" @click="copy" />
      <span class="quiet">It is shown this once.</span>
    </div>
  </div>
</template>

<style scoped>
.once {
  display: grid;
  gap: 8px;
}
pre {
  margin: 0;
  padding: 10px 12px;
  background: var(--brass-50);
  border-left: 3px solid var(--brass);
  font: 12px/18px var(--mono);
  overflow-wrap: anywhere;
  white-space: pre-wrap;
  user-select: all;
}
.act {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
