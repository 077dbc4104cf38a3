<script setup lang="ts">
import { activitiesOf } from '#core/record/activities';
import { recordTypeOf, type RecordSchema } from '#core/record/schema';
import { firstFree } from '#core/shape/first-free';
import type { Plan, PlanStep } from '#core/template/plan';
import { fieldFault } from '#core/template/plan-faults';
import { PDF_STANDARDS } from '#core/template/template-file';
import { withoutUnsaid } from '~/editor/without-unsaid';

/** One way out of a template as a form: what a document is called and numbered by, how its PDF is made, what is done after it. */
const { plan, schema, type, series, places } = defineProps<{
  plan: Plan;
  schema: RecordSchema;
  /** The record's type. */
  type: string;
  series: readonly { id: string; label: string }[];
  places: readonly { id: string; label: string }[];
}>();
const emit = defineEmits<{ change: [plan: Plan, words: string] }>();
const set = (values: Partial<Plan>, words: string) => emit('change', { ...plan, ...values }, words);
/** Once it is typed, and not at each letter: a blank at its end is the beginning of the next word. */
function rename(typed: string): void {
  const label = typed.trim();
  if (label !== '' && label !== plan.label) set({ label }, 'Plan renamed');
}
function setPdf(values: Partial<NonNullable<Plan['pdf']>>, words: string): void {
  const pdf = withoutUnsaid({ ...plan.pdf, ...values });
  const { pdf: _, ...rest } = plan;
  emit('change', Object.keys(pdf).length === 0 ? rest : { ...rest, pdf }, words);
}
const STANDARD_WORDS: Readonly<Record<string, string>> = { 'pdf/a-2b': 'PDF/A-2b, for archives' };
/** Stands for no standard at all. */
const PLAIN = 'plain';
const standards = [
  { value: PLAIN, label: 'Plain PDF' },
  ...PDF_STANDARDS.map((value) => ({ value, label: STANDARD_WORDS[value] ?? value })),
];

const steps = computed(() => plan.steps ?? []);
const setSteps = (next: readonly PlanStep[], words: string) =>
  set({ steps: next.length > 0 ? [...next] : undefined }, words);
const change = (at: number, step: PlanStep, words: string) =>
  setSteps(
    steps.value.map((each, index) => (index === at ? step : each)),
    words,
  );
function move(at: number, by: 1 | -1): void {
  const next = [...steps.value];
  const [moved] = next.splice(at, 1);
  next.splice(at + by, 0, moved!);
  setSteps(next, 'Step moved');
}

const freeId = () =>
  firstFree(
    (count) => `step-${count}`,
    steps.value.map(({ id }) => id),
  );
const settable = computed(() =>
  Object.values(recordTypeOf(schema, type)?.fields ?? {}).filter(
    ({ name }) => fieldFault(schema, type, name) === undefined,
  ),
);
/** What can be added, each as it begins. */
const KINDS = computed(() => {
  const choice = settable.value.find(({ allowed }) => allowed) ?? settable.value[0];
  const text = settable.value.find(({ type: kind, allowed }) => kind === 'text' && !allowed);
  const kinds = activitiesOf(schema, type)?.kind.allowed ?? [];
  const all: { label: string; disabled: boolean; make: (id: string) => PlanStep }[] = [
    {
      label: 'Set fields',
      disabled: !choice,
      make: (id) => ({
        type: 'setFields',
        id,
        fields: [{ field: choice!.name, value: `"${choice!.allowed?.[0]?.value ?? ''}"` }],
      }),
    },
    {
      label: 'Write an activity',
      disabled: kinds.length === 0,
      make: (id) => ({ type: 'activity', id, kind: kinds[0]!.value, subject: '=[document.number] filed' }),
    },
    {
      label: 'Keep a copy',
      disabled: places.length === 0,
      make: (id) => ({ type: 'copy', id, place: places[0]!.id, path: '=[document.number]' }),
    },
    {
      label: 'Put the document’s address into a field',
      disabled: !text,
      make: (id) => ({ type: 'address', id, field: text!.name }),
    },
  ];
  return all.map(({ label, disabled, make }) => ({
    label,
    disabled,
    command: () => setSteps([...steps.value, make(freeId())], `${label} added`),
  }));
});
const menu = useTemplateRef<{ toggle: (event: Event) => void }>('menu');
</script>

<template>
  <div class="plan">
    <div class="field">
      <label for="plan-label">Name</label>
      <InputText
        id="plan-label"
        :key="plan.label"
        :model-value="plan.label"
        maxlength="120"
        @change="rename(($event.target as HTMLInputElement).value)"
      />
    </div>
    <PlaceholderField
      id="plan-file"
      label="File name"
      :source="plan.fileName"
      hint="Made safe for file systems; the ending is added."
      @write="set({ fileName: $event }, 'File name changed')"
    />
    <PlaceholderField
      id="plan-title"
      label="Title"
      :source="plan.title"
      @write="set({ title: $event }, 'Title changed')"
    />
    <div class="pair">
      <label>
        <span>Number series</span>
        <PickOne
          label="Number series"
          :value="plan.series"
          :options="series.map(({ id, label }) => ({ value: id, label }))"
          @choose="set({ series: $event }, 'Number series changed')"
        />
      </label>
      <label>
        <span>PDF</span>
        <PickOne
          label="PDF standard"
          :value="plan.pdf?.standard ?? PLAIN"
          :options="standards"
          @choose="setPdf({ standard: ($event === PLAIN ? undefined : $event) as never }, 'PDF standard changed')"
        />
      </label>
    </div>
    <section>
      <h3>After filing</h3>
      <p class="quiet">
        Each step is done once, in this order, after the document is filed; those after one that fails wait for it.
      </p>
      <PlanStepForm
        v-for="(step, at) in steps"
        :key="step.id"
        :step="step"
        :position="at + 1"
        :schema="schema"
        :type="type"
        :places="places"
        @change="(next, words) => change(at, next, words)"
      >
        <template #acts>
          <Button
            label="Up"
            size="small"
            severity="secondary"
            text
            :disabled="at === 0"
            :aria-label="`Move step ${at + 1} up`"
            @click="move(at, -1)"
          />
          <Button
            label="Down"
            size="small"
            severity="secondary"
            text
            :disabled="at === steps.length - 1"
            :aria-label="`Move step ${at + 1} down`"
            @click="move(at, 1)"
          />
          <Button
            label="Remove"
            size="small"
            severity="secondary"
            text
            :aria-label="`Remove step ${at + 1}`"
            @click="
              setSteps(
                steps.filter((_, index) => index !== at),
                'Step removed',
              )
            "
          />
        </template>
      </PlanStepForm>
      <Button
        class="add"
        label="Add a step"
        severity="secondary"
        outlined
        size="small"
        aria-haspopup="true"
        @click="menu?.toggle($event)"
      />
      <Menu ref="menu" :model="KINDS" popup />
    </section>
  </div>
</template>

<style scoped>
.plan,
section {
  display: grid;
  gap: 14px;
}
section {
  gap: 10px;
  margin-top: 8px;
}
h3 {
  font: 600 14px/18px var(--serif);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.field,
.pair label {
  display: grid;
  gap: 4px;
}
.field label,
.pair span {
  font-weight: 500;
}
.add {
  justify-self: start;
}
</style>
