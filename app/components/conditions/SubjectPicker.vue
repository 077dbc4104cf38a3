<script setup lang="ts">
import type { Subject, SubjectGroup } from '#core/condition/subjects';

/** What a rule is about, chosen among fields, lists and figures. */
const { groups, value, label, placeholder } = defineProps<{
  groups: readonly SubjectGroup[];
  /** Absent where nothing is chosen yet. */
  value?: Subject;
  label: string;
  placeholder?: string;
}>();
const emit = defineEmits<{ choose: [subject: Subject] }>();
/** A subject is found by any part of its path, with blanks between the words too. */
const all = computed(() =>
  groups.map(({ title, subjects }) => ({
    title,
    subjects: subjects.map((each) => ({ ...each, words: `${title} ${each.formula.replaceAll(/[._]/g, ' ')}` })),
  })),
);
const options = computed(() => {
  const isOffered = !value || groups.some(({ subjects }) => subjects.some(({ formula }) => formula === value.formula));
  return isOffered ? all.value : [{ title: 'As it is written', subjects: [value] }, ...all.value];
});
/** What only adds shows nothing of what was chosen last. */
const times = ref(0);
function choose(formula: string): void {
  times.value++;
  const found = options.value.flatMap(({ subjects }) => subjects).find((each) => each.formula === formula);
  if (found) emit('choose', found);
}
</script>

<template>
  <Select
    :key="value ? 0 : times"
    :model-value="value?.formula ?? null"
    :options="options"
    option-group-label="title"
    option-group-children="subjects"
    option-label="label"
    option-value="formula"
    :filter-fields="['label', 'formula', 'words']"
    filter
    auto-filter-focus
    reset-filter-on-hide
    :placeholder="placeholder"
    :aria-label="label"
    size="small"
    class="subject"
    @update:model-value="choose"
  />
</template>
