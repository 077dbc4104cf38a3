<script setup lang="ts">
/** A text with values in it, written as `=[formula]`; values can be chosen and are put in at the cursor. */
const { id, label, source, optional } = defineProps<{
  id: string;
  label: string;
  source: string;
  hint?: string;
  /** Whether it may be empty. */
  optional?: boolean;
}>();
const emit = defineEmits<{ write: [source: string] }>();
const offered = useOfferedSubjects(() => undefined);
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');

function keep(written: string): void {
  const trimmed = written.trim();
  if (trimmed === source || (trimmed === '' && !optional)) return;
  emit('write', trimmed);
}
function putIn(formula: string): void {
  const input = field.value!.$el;
  const at = input.selectionStart ?? source.length;
  keep(`${input.value.slice(0, at)}=[${formula}]${input.value.slice(input.selectionEnd ?? at)}`);
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <div class="line">
      <InputText
        :id="id"
        ref="field"
        :key="source"
        class="mono"
        :model-value="source"
        spellcheck="false"
        autocomplete="off"
        :aria-describedby="hint ? `${id}-hint` : undefined"
        @change="keep(($event.target as HTMLInputElement).value)"
      />
      <SubjectPicker
        :groups="offered.groups.value"
        :label="`Put a value into ${label}`"
        placeholder="Value"
        @choose="putIn($event.formula)"
      />
    </div>
    <p v-if="hint" :id="`${id}-hint`" class="quiet">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 500;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 104px;
  gap: 6px;
}
.mono {
  font-size: 12.5px;
}
</style>
