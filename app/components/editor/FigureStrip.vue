<script setup lang="ts">
/** The figures of the document in one line, with their values; it opens to all of them, and leads to the figure sheet. */
const { templateId } = defineProps<{ templateId: string }>();
const draft = useDraftStore();
const figures = useFiguresStore();
const sheet = useSheetStore();
const open = ref(false);
const figuresOfDocument = computed(() => draft.template?.sheet.document);
const shown = computed(() =>
  (figuresOfDocument.value ?? []).map(({ name, label, formula }) => ({
    name,
    label,
    formula,
    value: figures.view?.figures[name]?.values[0],
  })),
);
/** What keeps it from being published. */
const wrong = computed(() => figures.faults[0]);
const faults = computed(() => figures.page?.faults.length ?? 0);
</script>

<template>
  <section class="figure-strip" aria-label="Figure sheet">
    <ul v-if="open" class="drawer">
      <li v-for="{ name, label, formula, value } in shown" :key="name">
        <button type="button" class="in-words" @click="sheet.insertField({ formula: name, label })">
          {{ label }}
        </button>
        <span class="mono quiet">{{ name }}</span>
        <code>{{ formula }}</code>
        <strong :class="{ failed: value?.failed }">{{ value?.text }}</strong>
      </li>
    </ul>
    <div class="line">
      <button type="button" class="title" :aria-expanded="open" @click="open = !open">Figure sheet</button>
      <span class="all">
        <span v-for="{ name, value } in shown" v-show="!open" :key="name" class="one">
          <span class="mono">{{ name }}</span>
          <strong :class="{ failed: value?.failed }">{{ value?.failed ? 'error' : value?.text }}</strong>
        </span>
      </span>
      <span class="end">
        <span v-if="wrong" class="fault" role="status">{{ figures.labelOf(wrong.key) }}: {{ wrong.message }}</span>
        <span v-else-if="faults > 0" class="quiet"
          >{{ faults }} {{ faults === 1 ? 'finding' : 'findings' }} for this record</span
        >
        <NuxtLink :to="`/templates/${templateId}/figures`">Open the figure sheet</NuxtLink>
      </span>
    </div>
  </section>
</template>

<style scoped>
.figure-strip {
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.line {
  display: flex;
  align-items: center;
  gap: 18px;
  height: 38px;
  padding: 0 14px 0 16px;
  overflow: hidden;
  white-space: nowrap;
}
.title {
  flex: none;
  padding: 0;
  background: none;
  border: 0;
  color: var(--ink);
  font-weight: 600;
  cursor: pointer;
}
/* As many as there is room for: the rest is one click away. */
.all {
  display: flex;
  flex: 1;
  gap: 18px;
  min-width: 0;
  overflow: hidden;
  mask-image: linear-gradient(to right, #000 calc(100% - 24px), transparent);
}
.one {
  display: flex;
  flex: none;
  gap: 7px;
}
strong {
  border-bottom: 3px double var(--brass);
  font: 600 12px/16px var(--mono);
}
.fault {
  overflow: hidden;
  color: var(--brick);
  text-overflow: ellipsis;
}
.failed {
  border-color: var(--brick);
  color: var(--brick);
}
.end {
  display: flex;
  flex: none;
  gap: 14px;
  max-width: 60%;
}
.drawer {
  max-height: 34vh;
  padding: 8px 16px;
  overflow: auto;
  border-bottom: 1px solid var(--hairline);
}
.drawer li {
  display: grid;
  grid-template-columns: 190px 150px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: baseline;
  padding: 3px 0;
}
.drawer button {
  text-align: start;
}
.drawer code {
  overflow: hidden;
  color: var(--ink-quiet);
  font: 12px/18px var(--mono);
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
