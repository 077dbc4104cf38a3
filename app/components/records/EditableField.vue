<script setup lang="ts">
import type { FieldSchema } from '#core/record/schema';
import { isEditable } from '#core/rich/rich-text';
import type { FieldValue } from '#core/record/snapshot';

/** One field of a record: its label and value; a click turns the value into an input. */
const {
  field,
  value,
  focused = false,
  whyNot,
  write,
} = defineProps<{
  field: FieldSchema;
  value: FieldValue | undefined;
  focused?: boolean;
  /** Why the person may not change it. */
  whyNot?: string;
  /** Gives why a value was refused, or nothing. */
  write: (value: string) => Promise<string | undefined>;
}>();
const tellBarred = useBarred();
const editing = ref(false);
/** Why it cannot be changed here. Only a formatted text is looked into. */
const notHere = computed(() => {
  if (whyNot !== undefined) return whyNot;
  const isKept = field.type !== 'rich' || isEditable(writtenValue(value));
  return isKept ? undefined : `${field.label} has tables or pictures in it. Change it in the CRM.`;
});
const row = useTemplateRef<HTMLElement>('row');
const shown = computed(() => fieldText(value, field));

onMounted(() => {
  if (!focused) return;
  row.value?.scrollIntoView({ block: 'center' });
  begin();
});

function begin(): void {
  if (field.readonly) return;
  if (notHere.value) return tellBarred(notHere.value, whyNot ? undefined : 'Not to be changed here');
  editing.value = true;
}

/** Who was typing is where the value is, and Tab goes on from there. */
function finish(): void {
  const hadFocus = row.value?.contains(document.activeElement) || document.activeElement === document.body;
  editing.value = false;
  if (hadFocus) void nextTick(() => row.value?.querySelector('button')?.focus());
}
</script>

<template>
  <div ref="row" class="field" :class="{ focused }">
    <dt>{{ field.label }}</dt>
    <dd>
      <LazyFieldInput v-if="editing" :field="field" :value="value" :label="field.label" :write="write" @done="finish" />
      <button
        v-else-if="!field.readonly"
        v-tooltip.top="notHere"
        type="button"
        class="value"
        :class="{ blank: !shown }"
        :aria-disabled="notHere ? true : undefined"
        :aria-description="notHere"
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
  color: var(--ink-faint);
  font-style: italic;
}
.focused {
  background: var(--brass-50);
  box-shadow: 0 0 0 4px var(--brass-50);
}
</style>
