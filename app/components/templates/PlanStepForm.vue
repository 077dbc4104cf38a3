<script setup lang="ts">
import { activitiesOf } from '#core/record/activities';
import { recordTypeOf, type RecordSchema } from '#core/record/schema';
import type { PlanStep } from '#core/template/plan';
import { fieldFault } from '#core/template/plan-faults';

/** One step after filing, as a form: what it does, and when. */
const { step, schema, type, places } = defineProps<{
  step: PlanStep;
  /** Where it stands among the others, from 1. */
  position: number;
  schema: RecordSchema;
  /** The record's type. */
  type: string;
  places: readonly { id: string; label: string }[];
}>();
const emit = defineEmits<{ change: [step: PlanStep, words: string] }>();
const WORDS: Readonly<Record<PlanStep['type'], string>> = {
  setFields: 'Set fields',
  activity: 'Write an activity',
  copy: 'Keep a copy',
  address: 'Put the document’s address into a field',
};
const title = computed(() => WORDS[step.type]);
/** The fields that can be set from outside. */
const settable = computed(() =>
  Object.values(recordTypeOf(schema, type)?.fields ?? {})
    .filter(({ name }) => fieldFault(schema, type, name) === undefined)
    .map(({ name, label }) => ({ value: name, label })),
);
const kinds = computed(() => activitiesOf(schema, type)?.kind.allowed ?? []);
const allowedOf = (field: string) => recordTypeOf(schema, type)?.fields[field]?.allowed;
/** The value of a formula that is a plain text: a choice is made from a list then. */
const plainOf = (formula: string) => /^"((?:[^"]|"")*)"$/.exec(formula)?.[1]?.replaceAll('""', '"');
const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;

const set = (values: Partial<PlanStep>, words = `${title.value} changed`) =>
  emit('change', { ...step, ...values } as PlanStep, words);
function setWhen(when: string | undefined): void {
  const { when: _, ...rest } = step;
  emit('change', (when === undefined ? rest : { ...rest, when }) as PlanStep, `${title.value}: condition changed`);
}
type Fields = Extract<PlanStep, { type: 'setFields' }>['fields'];
const fields = computed<Fields>(() => (step.type === 'setFields' ? step.fields : []));
const setField = (at: number, values: Partial<Fields[number]>) =>
  set({ fields: fields.value.map((each, index) => (index === at ? { ...each, ...values } : each)) });
function chooseField(at: number, field: string): void {
  const first = allowedOf(field)?.[0]?.value;
  setField(at, { field, value: quoted(first ?? '') });
}
const free = computed(() => settable.value.filter(({ value }) => !fields.value.some(({ field }) => field === value)));
function addField(): void {
  const [next] = free.value;
  if (next)
    set({ fields: [...fields.value, { field: next.value, value: quoted(allowedOf(next.value)?.[0]?.value ?? '') }] });
}
const conditional = ref(false);
const shows = computed(() => step.when !== undefined || conditional.value);
</script>

<template>
  <article :aria-label="`Step ${position}: ${title}`">
    <header>
      <h4>{{ position }}. {{ title }}</h4>
      <slot name="acts" />
    </header>
    <div v-if="step.type === 'setFields'" class="fields">
      <div v-for="({ field, value }, at) in step.fields" :key="field" class="row">
        <PickOne
          :label="`Field ${at + 1}`"
          :value="field"
          :options="settable.filter((each) => each.value === field || free.includes(each))"
          @choose="chooseField(at, $event)"
        />
        <span class="quiet">to</span>
        <PickOne
          v-if="allowedOf(field) && plainOf(value) !== undefined"
          :label="`Value of field ${at + 1}`"
          :value="plainOf(value)"
          :options="allowedOf(field)!.map(({ value: each, label }) => ({ value: each, label }))"
          @choose="setField(at, { value: quoted($event) })"
        />
        <FormulaField
          v-else
          :source="value"
          :label="`Value of field ${at + 1}`"
          @write="$event && setField(at, { value: $event })"
        />
        <Button
          v-if="step.fields.length > 1"
          label="Remove"
          size="small"
          severity="secondary"
          text
          @click="set({ fields: step.fields.filter((_, index) => index !== at) })"
        />
      </div>
      <button v-if="free.length > 0" type="button" class="in-words" @click="addField">Add a field</button>
    </div>
    <template v-else-if="step.type === 'activity'">
      <div class="row">
        <PickOne
          label="Kind of activity"
          :value="step.kind"
          :options="kinds.map(({ value, label }) => ({ value, label }))"
          placeholder="Kind"
          @choose="set({ kind: $event })"
        />
      </div>
      <PlaceholderField
        :id="`${step.id}-subject`"
        label="Subject"
        :source="step.subject"
        @write="set({ subject: $event })"
      />
      <PlaceholderField
        :id="`${step.id}-text`"
        label="Text"
        :source="step.text ?? ''"
        optional
        @write="set({ text: $event === '' ? undefined : $event })"
      />
    </template>
    <template v-else-if="step.type === 'copy'">
      <div class="row">
        <PickOne
          label="Place"
          :value="step.place"
          :options="places.map(({ id, label }) => ({ value: id, label }))"
          placeholder="Place"
          @choose="set({ place: $event })"
        />
      </div>
      <PlaceholderField
        :id="`${step.id}-path`"
        label="Path"
        :source="step.path"
        hint="Folders with / between them, the file’s name last."
        @write="set({ path: $event })"
      />
    </template>
    <div v-else class="row">
      <PickOne label="Field" :value="step.field" :options="settable" @choose="set({ field: $event })" />
    </div>
    <div class="when">
      <template v-if="shows">
        <p class="quiet">Only when</p>
        <ConditionBuilder :source="step.when" label="When it is done" optional @write="setWhen" />
      </template>
      <button v-else type="button" class="in-words" @click="conditional = true">Only when …</button>
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: 10px;
  padding: 12px 14px 14px;
  background: var(--stone-50);
  border: 1px solid var(--hairline);
}
header {
  display: flex;
  gap: 4px;
  align-items: center;
}
h4 {
  flex: 1;
  font: 500 13px/18px var(--sans);
}
.fields {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.row {
  display: grid;
  grid-template-columns: 200px auto minmax(0, 240px) auto;
  gap: 8px;
  align-items: center;
}
.when {
  display: grid;
  gap: 6px;
  justify-items: stretch;
}
.when > button {
  justify-self: start;
}
</style>
