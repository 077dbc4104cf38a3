<script setup lang="ts">
import type { Holding } from '~/workers/figure-workshop';

/** For which of the records that the template is proved on a condition holds. */
const { source } = defineProps<{ source: string }>();
const proofs = useProofRecordsStore();
const figures = useFiguresStore();
const all = shallowRef<Holding[]>([]);
watch(
  () => [source, figures.view] as const,
  async ([formula]) => {
    const found = await proofs.holdsFor(formula);
    if (formula === source) all.value = found;
  },
  { immediate: true },
);
const holding = computed(() => all.value.filter(({ holds }) => holds));
const others = computed(() => all.value.filter(({ holds }) => holds === false));
const unclear = computed(() => all.value.filter(({ why }) => why !== undefined));
const open = ref(false);
/** More are one click away. */
const MOST = 5;
const first = computed(() => (open.value ? holding.value : holding.value.slice(0, MOST)));
const rest = computed(() => (open.value ? 0 : all.value.length - first.value.length - unclear.value.length));
const isShown = (id: string) => figures.shown?.record.id === id;
</script>

<template>
  <section v-if="all.length > 0" class="holds" aria-label="Where it holds">
    <h3>Holds for {{ holding.length }} of {{ all.length }} proof records</h3>
    <ul>
      <li v-for="{ id, name } in first" :key="id" class="yes">
        <button type="button" class="in-words" @click="figures.choose(id)">{{ name }}</button>
        <span v-if="isShown(id)" class="quiet">this one</span>
      </li>
      <li v-for="{ id, name, why } in unclear" :key="id" class="unclear">
        <button type="button" class="in-words" @click="figures.choose(id)">{{ name }}</button>
        <span class="fault">{{ why }}</span>
      </li>
      <li v-if="rest > 0" class="no">
        <button type="button" class="in-words" @click="open = true">{{ rest }} more…</button>
      </li>
      <template v-if="open">
        <li v-for="{ id, name } in others" :key="id" class="no">
          <button type="button" class="in-words" @click="figures.choose(id)">{{ name }}</button>
          <span v-if="isShown(id)" class="quiet">this one</span>
          <span v-else class="quiet">no</span>
        </li>
      </template>
    </ul>
  </section>
</template>

<style scoped>
.holds {
  display: grid;
  gap: 4px;
}
h3 {
  color: var(--ink-quiet);
  font: 400 12px/18px var(--sans);
}
li {
  position: relative;
  padding-left: 14px;
}
li::before {
  position: absolute;
  top: 7px;
  left: 2px;
  width: 5px;
  height: 5px;
  border: 1px solid var(--slate);
  border-radius: 50%;
  content: '';
}
.yes::before {
  background: var(--slate);
}
.unclear::before {
  border-color: var(--brick);
}
li .in-words {
  font-weight: 400;
  color: var(--ink);
  text-align: start;
}
.no .in-words {
  color: var(--ink-quiet);
}
.fault {
  display: block;
  color: var(--brick);
  font-size: 12px;
}
.quiet {
  margin-left: 8px;
}
</style>
