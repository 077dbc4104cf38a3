<script setup lang="ts">
import { formulaReference } from '#core/sheet/reference';

/** Every function with what it does and an example, made from the same declarations that compute. */
const visible = defineModel<boolean>('visible', { required: true });
const search = ref('');
const entries = formulaReference();
const shown = computed(() => {
  const words = search.value.trim().toLowerCase();
  return entries.filter(({ name, help, family }) => `${name} ${help} ${family}`.toLowerCase().includes(words));
});
const families = computed(() => [...new Set(shown.value.map(({ family }) => family))]);
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Formula help" :style="{ width: '860px' }" :draggable="false">
    <InputText
      v-model="search"
      fluid
      class="search"
      placeholder="Search functions"
      aria-label="Search functions"
      autofocus
    />
    <div class="reference" role="region" aria-label="Functions" tabindex="0">
      <p v-if="shown.length === 0" class="quiet">No function says “{{ search }}”.</p>
      <section v-for="family in families" :key="family">
        <h3>{{ family }}</h3>
        <dl>
          <template v-for="entry in shown.filter((each) => each.family === family)" :key="entry.name">
            <dt class="mono">{{ entry.signature }}</dt>
            <dd>
              {{ entry.help }}
              <span class="example mono">{{ entry.example }} <i>gives</i> {{ entry.result }}</span>
            </dd>
          </template>
        </dl>
      </section>
    </div>
  </Dialog>
</template>

<style scoped>
.search {
  margin-bottom: 12px;
}
.reference {
  height: 440px;
  overflow: auto;
}
h3 {
  padding: 10px 0 4px;
  border-bottom: 1px solid var(--ink);
  font: 600 15px/20px var(--serif);
}
dl {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
}
dt,
dd {
  padding: 7px 12px 7px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
dt {
  color: var(--slate);
  overflow-wrap: anywhere;
}
.example {
  display: block;
  margin-top: 2px;
  color: var(--brass-text);
  overflow-wrap: anywhere;
}
.example i {
  color: var(--ink-quiet);
  font-family: var(--sans);
}
</style>
