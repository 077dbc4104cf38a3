<script setup lang="ts" generic="Value extends string | number">
/** One of several, chosen from a list that opens; by keyboard it is taken with Enter, not at each arrow. */
const { options } = defineProps<{
  label: string;
  value: Value | undefined;
  options: readonly { value: Value; label: string }[];
  placeholder?: string;
}>();
defineEmits<{ choose: [value: Value] }>();
</script>

<template>
  <Select
    :model-value="value"
    :options="[...options]"
    option-label="label"
    option-value="value"
    :aria-label="label"
    :placeholder="placeholder"
    :filter="options.length > 12"
    auto-filter-focus
    reset-filter-on-hide
    size="small"
    @update:model-value="$emit('choose', $event)"
  />
</template>
