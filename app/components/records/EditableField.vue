<script setup lang="ts">
import type { FieldSchema } from '#core/record/schema';
import type { FieldValue } from '#core/record/snapshot';

/** One field of a record: its label and value; a click turns the value into an input. Enter writes, Esc leaves. */
const {
  field,
  value,
  focused = false,
  whyNot,
} = defineProps<{
  field: FieldSchema;
  value: FieldValue | undefined;
  focused?: boolean;
  /** Why the person may not change it. */
  whyNot?: string;
}>();
const tellBarred = useBarred();
const emit = defineEmits<{ write: [value: string] }>();
const editing = ref(false);
const typed = ref('');
const input = useTemplateRef<HTMLElement>('input');
const row = useTemplateRef<HTMLElement>('row');
const options = computed(() => (field.type === 'choice' ? (field.allowed ?? []) : []));
const shown = computed(() => fieldText(value));

onMounted(() => {
  if (!focused) return;
  row.value?.scrollIntoView({ block: 'center' });
  begin();
});

function begin(): void {
  // Formatted text is written in the CRM, which has an editor for it.
  if (field.readonly || field.type === 'rich') return;
  if (whyNot) return tellBarred(whyNot);
  typed.value = fieldInput(value);
  editing.value = true;
  void nextTick(() => input.value?.focus());
}

function finish(): void {
  if (!editing.value) return;
  editing.value = false;
  if (typed.value.trim() !== fieldInput(value)) emit('write', typed.value);
}
</script>

<template>
  <div ref="row" class="field" :class="{ focused }">
    <dt>{{ field.label }}</dt>
    <dd>
      <template v-if="editing">
        <select
          v-if="options.length > 0"
          ref="input"
          v-model="typed"
          :aria-label="field.label"
          @blur="finish"
          @change="finish"
          @keydown.esc="editing = false"
        >
          <option v-if="field.nullable" value="">none</option>
          <option v-for="option in options" :key="option.value" :value="option.value">{{ option.label }}</option>
        </select>
        <input
          v-else
          ref="input"
          v-model="typed"
          :type="field.type === 'date' ? 'date' : 'text'"
          :aria-label="field.label"
          @blur="finish"
          @keydown.enter.prevent="finish"
          @keydown.esc.stop="editing = false"
        />
      </template>
      <button
        v-else-if="!field.readonly"
        type="button"
        class="value"
        :class="{ blank: !shown }"
        :title="whyNot"
        :aria-disabled="whyNot ? true : undefined"
        :aria-label="`${field.label}: ${shown || 'blank'}. Change it`"
        @click="begin"
      >
        <bdi>{{ shown || 'blank' }}</bdi>
      </button>
      <bdi v-else>{{ shown || 'blank' }}</bdi>
    </dd>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  gap: 8px;
  padding: 1px 0;
  align-items: baseline;
}
dt {
  align-self: start;
  padding-top: 3px;
  color: var(--ink-quiet);
}
.value {
  max-width: 100%;
  padding: 2px 5px;
  margin-left: -6px;
  overflow: hidden;
  background: none;
  border: 1px solid transparent;
  border-radius: 3px;
  color: var(--ink);
  text-align: start;
  text-overflow: ellipsis;
  white-space: pre-line;
  cursor: text;
}
.value:hover {
  border-color: var(--hairline);
}
.blank {
  color: #66726f;
  font-style: italic;
}
input,
select {
  width: 100%;
  padding: 2px 5px;
  margin-left: -6px;
  background: var(--sheet);
  border: 1px solid var(--verdigris);
  border-radius: 3px;
}
.focused {
  background: var(--brass-50);
  box-shadow: 0 0 0 4px var(--brass-50);
}
</style>
