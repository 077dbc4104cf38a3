<script setup lang="ts">
import type { LookExample } from '#core/sheet/looks';

/** The look of a value, chosen from what it would print for the record. */
const { value, formula, list, label } = defineProps<{
  label: string;
  value: string | undefined;
  formula: string;
  list?: string;
}>();
const emit = defineEmits<{
  choose: [format: string | undefined];
  /** Another formula for the value: words of a person's own in place of yes and no. */
  formula: [source: string];
}>();
const workshop = useWorkshop();
const figures = useFiguresStore();
const USUAL = '-';
const looks = shallowRef<LookExample[]>([]);
watch(
  () => [formula, list, figures.page] as const,
  async ([source, items]) => (looks.value = await workshop.looks(source, items)),
  { immediate: true },
);
const options = computed(() =>
  looks.value.map(({ format, example }) => ({ value: format ?? USUAL, label: example.replaceAll('\n', ' / ') })),
);
/** Yes and no have a mark for a look, and nothing else has. */
const isYesNo = computed(() => looks.value.some(({ format }) => format === 'mark'));
const withWords = computed(() => `IF(${formula.trim()}, "yes", "no")`);
</script>

<template>
  <PickOne
    v-if="options.length > 1"
    :label="label"
    :value="value ?? USUAL"
    :options="options"
    @choose="emit('choose', $event === USUAL ? undefined : $event)"
  />
  <button v-if="isYesNo" type="button" class="in-words" @click="emit('formula', withWords)">Words of its own…</button>
  <p v-if="options.length <= 1" class="quiet">{{ options[0]?.label ?? 'as it is' }}</p>
</template>
