<script setup lang="ts">
const loaded = useLoaded(api.templates);
void loaded.reload();
</script>

<template>
  <div class="templates">
    <WhereAmI title="Templates" />
    <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
    <EmptyNote v-else-if="loaded.value.value?.length === 0" title="No templates yet"
      >Templates are shipped with Lumbix; start it with its demo data.</EmptyNote
    >
    <ul v-else class="shelf">
      <li v-for="template in loaded.value.value" :key="template.id">
        <NuxtLink :to="`/templates/${template.id}/figures`">
          <span class="sheet" aria-hidden="true"><i></i><i></i><i></i><i></i><b></b></span>
          <strong>{{ template.name }}</strong>
          <span class="quiet">{{ template.kind }} · figure sheet</span>
        </NuxtLink>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.templates {
  height: 100%;
  padding: 20px;
  overflow: auto;
}
.shelf {
  display: flex;
  flex-wrap: wrap;
  gap: 24px;
}
.shelf a {
  display: grid;
  gap: 3px;
  width: 168px;
  color: var(--ink);
  text-decoration: none;
}
.sheet {
  display: grid;
  align-content: start;
  gap: 9px;
  height: 220px;
  margin-bottom: 6px;
  padding: 34px 22px;
  background: var(--sheet);
  box-shadow: var(--sheet-shadow);
}
.sheet i {
  border-top: 1px solid var(--hairline);
}
.sheet b {
  justify-self: end;
  width: 46px;
  border-top: 3px double var(--brass);
}
a:hover strong {
  text-decoration: underline;
}
</style>
