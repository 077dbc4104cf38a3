<script setup lang="ts">
import { cleanHtml } from '#core/rich/rich-text';
import type { FieldSchema } from '#core/record/schema';
import type { FieldValue } from '#core/record/snapshot';

/**
 * What a field is typed into: by its type, in the notation that is shown. Enter and leaving it write, Esc gives up. It stays, with
 * what was typed and the reason, until the value is written.
 */
const { field, value, label, write } = defineProps<{
  field: FieldSchema;
  value: FieldValue | undefined;
  /** Its name for assistive technology. */
  label: string;
  /** Writes a value as the server takes it. Gives why it was refused, or nothing. */
  write: (value: string) => Promise<string | undefined>;
}>();
const emit = defineEmits<{ done: [] }>();

const before = typedText(field, value);
const typed = ref(before);
const chosen = ref<string[]>(value && typeof value === 'object' && 'choices' in value ? [...value.choices] : []);
const busy = ref(false);
const problem = ref('');
/** What the typed number may mean, where it is not said clearly. */
const readings = ref<string[]>([]);
const root = useTemplateRef<HTMLElement>('root');
const NONE = '\u2013';
const options = computed(() => [
  ...(field.nullable ? [{ value: NONE, label: 'none' }] : []),
  ...(field.type === 'boolean'
    ? [
        { value: 'true', label: 'yes' },
        { value: 'false', label: 'no' },
      ]
    : (field.allowed ?? [])),
]);
const isChosen = computed(() => field.type === 'boolean' || (field.type === 'choice' && options.value.length > 0));
const isMany = computed(() => field.type === 'choices' && (field.allowed?.length ?? 0) > 0);

const focus = () => root.value?.querySelector<HTMLElement>('[role="combobox"], input, textarea')?.focus();
onMounted(focus);

/** What is taken away loses the cursor, which must not write once more. */
let isOver = false;
function end(): void {
  isOver = true;
  emit('done');
}

/** Writes what was typed, once it is clear what it means. */
async function finish(): Promise<void> {
  if (busy.value || isOver) return;
  if (typed.value.trim() === before.trim()) return end();
  const read = typedValue(field, typed.value);
  readings.value = read.either ?? [];
  problem.value = read.problem ?? '';
  if (read.value !== undefined) await send(read.value);
}

async function send(text: string): Promise<void> {
  busy.value = true;
  readings.value = [];
  problem.value = (await write(text)) ?? '';
  busy.value = false;
  if (!problem.value) return end();
  await nextTick();
  focus();
}

function leave(event: FocusEvent): void {
  // To one of its own buttons.
  if (root.value?.contains(event.relatedTarget as Node | null)) return;
  if (!problem.value && readings.value.length === 0) void finish();
}

function pick(day: string | undefined): void {
  typed.value = day ?? '';
  void finish();
}
const choose = (option: string) => send(option === NONE ? '' : option);
function chooseMany(): void {
  const text = chosen.value.join(', ');
  if (text === before) end();
  else void send(text);
}
</script>

<template>
  <span ref="root" class="field-input" @keydown.esc.stop.prevent="end">
    <Select
      v-if="isChosen"
      :model-value="typed || NONE"
      :options="options"
      option-label="label"
      option-value="value"
      :aria-label="label"
      :loading="busy"
      fluid
      size="small"
      @update:model-value="choose"
    />
    <MultiSelect
      v-else-if="isMany"
      v-model="chosen"
      :options="[...(field.allowed ?? [])]"
      option-label="label"
      option-value="value"
      :aria-label="label"
      :loading="busy"
      display="chip"
      fluid
      @hide="chooseMany"
    />
    <LazyRichInput
      v-else-if="field.type === 'rich'"
      :html="cleanHtml(before)"
      :label="label"
      :busy="busy"
      @save="$event === before ? end() : send($event)"
      @cancel="end"
    />
    <PickDay
      v-else-if="field.type === 'date'"
      :value="before || undefined"
      :label="label"
      :busy="busy"
      @choose="pick"
      @unclear="problem = `“${$event}” is not a day. Write it as ${dayInFigures(new Date())}.`"
    />
    <InputText
      v-else
      v-model="typed"
      size="small"
      fluid
      :inputmode="isNumberField(field) ? 'decimal' : undefined"
      :aria-label="label"
      :readonly="busy"
      :aria-invalid="problem !== ''"
      @blur="leave"
      @keydown.enter.prevent="finish"
    />
    <span v-if="busy" class="quiet" role="status">Writing …</span>
    <span v-if="readings.length > 0" class="ask" role="alert"
      >Which number is it?
      <Button
        v-for="reading in readings"
        :key="reading"
        :label="numberText(reading)"
        size="small"
        severity="secondary"
        outlined
        @click="send(reading)"
    /></span>
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </span>
</template>

<style scoped>
.field-input {
  display: grid;
  gap: 3px;
}
[aria-invalid='true'] {
  border-color: var(--brick);
}
.problem {
  color: var(--brick);
  text-align: start;
  white-space: normal;
}
.ask,
.problem {
  max-width: 240px;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  white-space: normal;
}
</style>
