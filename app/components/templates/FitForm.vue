<script setup lang="ts">
import type { Fits, Template } from '#core/template/template';

/** Which records a template is for: the condition, the sentence for all others, and the stages at which it is usually produced. */
const { template, stages } = defineProps<{
  template: Template;
  /** The stages that records of its type can have. */
  stages: readonly { value: string; label: string }[];
}>();
const emit = defineEmits<{ change: [template: Template, words: string] }>();
const fits = computed(() => template.fits);
function setFits(next: Fits | undefined, words: string): void {
  const { fits: _, ...rest } = template;
  emit('change', next === undefined ? rest : { ...rest, fits: next }, words);
}
const begin = () => setFits({ formula: 'true', sentence: 'Only for …' }, 'Which records it is for');
const write = (values: Partial<Fits>) => setFits({ ...fits.value!, ...values }, 'Which records it is for');
const SEVERITIES = [
  { value: 'warns', label: 'needs a reason to be filed all the same' },
  { value: 'stops', label: 'cannot be filed' },
] as const;
</script>

<template>
  <div class="fit">
    <label v-if="stages.length > 0" class="stages">
      <span>Usual at these stages</span>
      <MultiSelect
        :model-value="template.stages ?? []"
        :options="[...stages]"
        option-label="label"
        option-value="value"
        placeholder="Any stage"
        aria-label="Usual at these stages"
        size="small"
        fluid
        @update:model-value="
          emit('change', { ...template, stages: $event.length > 0 ? $event : undefined }, 'Usual stages changed')
        "
      />
    </label>
    <template v-if="fits">
      <p class="label">Which records it is for</p>
      <ConditionBuilder
        :source="fits.formula"
        label="Which records it is for"
        @write="write({ formula: $event ?? 'true' })"
      />
      <PlaceholderField
        id="fit-sentence"
        label="Said of all others"
        :source="fits.sentence"
        @write="write({ sentence: $event })"
      />
      <label class="stages">
        <span>Such a document</span>
        <PickOne
          label="What becomes of others"
          :value="fits.severity ?? 'warns'"
          :options="SEVERITIES"
          @choose="write({ severity: $event })"
        />
      </label>
      <button type="button" class="in-words" @click="setFits(undefined, 'For all records')">For all records</button>
    </template>
    <button v-else type="button" class="in-words" @click="begin">Only for some records …</button>
  </div>
</template>

<style scoped>
.fit {
  display: grid;
  gap: 12px;
}
.stages {
  display: grid;
  gap: 4px;
}
.stages span,
.label {
  font-weight: 500;
}
.in-words {
  justify-self: start;
}
</style>
