<script setup lang="ts">
/** A formula among properties: read as it is, and written in the formula line once it is opened. */
const { source, label, optional, list } = defineProps<{
  source: string | undefined;
  label: string;
  optional?: boolean;
  list?: string;
}>();
const emit = defineEmits<{ write: [source: string | undefined] }>();
const open = ref(false);
const typed = ref('');

function begin(): void {
  typed.value = source ?? '';
  open.value = true;
}
function keep(): void {
  open.value = false;
  const written = typed.value.trim();
  if (written === (source ?? '') || (written === '' && !optional)) return;
  emit('write', written === '' ? undefined : written);
}
// Another part is chosen: what was written belongs to the one before.
onBeforeUnmount(() => open.value && keep());
</script>

<template>
  <FormulaLine
    v-if="open"
    :source="source ?? ''"
    :list="list"
    :row="0"
    :label="label"
    @typed="typed = $event"
    @done="keep"
    @left="open = false"
  />
  <button
    v-else
    type="button"
    class="formula mono"
    :class="{ none: !source }"
    :aria-label="`${label}: ${source ?? 'none'}`"
    @click="begin"
  >
    {{ source || 'none' }}
  </button>
</template>

<style scoped>
.formula {
  width: 100%;
  min-height: 30px;
  padding: 5px 9px;
  background: var(--stone-50);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  color: var(--ink);
  text-align: start;
  overflow-wrap: anywhere;
  cursor: text;
}
.none {
  color: var(--ink-faint);
}
</style>
