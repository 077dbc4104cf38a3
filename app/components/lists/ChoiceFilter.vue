<script setup lang="ts">
/** A filter of a list: "Stage: any". */
const { options } = defineProps<{
  label: string;
  value: string;
  options: readonly (string | { value: string; label: string })[];
}>();
defineEmits<{ choose: [value: string | undefined] }>();
/** Stands for no filter: the component shows nothing for a blank value. */
const ANY = '*';
const choices = computed(() => [
  { value: ANY, label: 'any' },
  ...options.map((each) => (typeof each === 'string' ? { value: each, label: each } : each)),
]);
</script>

<template>
  <span class="choice">
    <span aria-hidden="true">{{ label }}:</span>
    <PickOne
      :label="label"
      :value="value || ANY"
      :options="choices"
      @choose="$emit('choose', $event === ANY ? undefined : $event)"
    />
  </span>
</template>

<style scoped>
.choice {
  display: inline-flex;
  align-items: center;
  height: 26px;
  padding-left: 9px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  font-size: 12px;
  font-weight: 500;
  white-space: nowrap;
}
.choice:focus-within {
  outline: 2px solid var(--verdigris);
  outline-offset: 1px;
}
.choice :deep(.p-select) {
  max-width: 150px;
  background: none;
  border: 0;
  outline: none;
}
.choice :deep(.p-select-label) {
  padding: 3px 0 3px 5px;
  font-weight: 500;
}
.choice :deep(.p-select-dropdown) {
  width: 24px;
}
</style>
