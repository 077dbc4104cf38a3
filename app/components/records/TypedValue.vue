<script setup lang="ts">
import type { FieldSchema } from '#core/record/schema';
import type { FieldValue } from '#core/record/snapshot';

/** A value that is typed anew once it is pressed. */
const {
  field,
  value,
  none = 'blank',
} = defineProps<{
  field: FieldSchema;
  value: FieldValue | undefined;
  /** Its name for assistive technology. */
  label: string;
  /** Writes a value as the server takes it. Gives why it was refused, or nothing. */
  write: (value: string) => Promise<string | undefined>;
  /** Shown where there is none. */
  none?: string;
  /** Whether it must be typed still. */
  missing?: boolean;
  frozen?: boolean;
}>();
const open = defineModel<boolean>('open', { default: false });
const words = computed(() => fieldText(value, field));
</script>

<template>
  <FieldInput v-if="open" :field="field" :value="value" :label="label" :write="write" @done="open = false" />
  <button
    v-else
    type="button"
    :class="{ missing }"
    :disabled="frozen"
    :aria-label="`${label}: ${words || 'blank'}`"
    @click="open = true"
  >
    {{ words || none }}
  </button>
</template>

<style scoped>
button {
  justify-self: start;
  padding: 1px 6px;
  background: var(--brass-50);
  border: 1px dashed var(--brass);
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
button:disabled {
  background: none;
  border-color: transparent;
  cursor: default;
}
.missing {
  color: var(--brick);
}
</style>
