<script setup lang="ts">
import { firstFree } from '#core/shape/first-free';
import { ASK, ASK_TYPES, type Ask } from '#core/template/asks';
import type { Template } from '#core/template/template';
import { withoutUnsaid } from '~/editor/without-unsaid';

/** What is asked for with each document of a template: values that its records do not have. */
const { template } = defineProps<{ template: Template }>();
const emit = defineEmits<{ change: [template: Template, words: string] }>();
const asks = computed(() => template.asks ?? []);
function setAsks(next: readonly Ask[], words: string): void {
  const { asks: _, ...rest } = template;
  emit('change', next.length > 0 ? { ...rest, asks: [...next] } : rest, words);
}
const set = (ask: Ask, values: Partial<Ask>, what: string) =>
  setAsks(
    asks.value.map((each) => (each.name === ask.name ? (withoutUnsaid({ ...each, ...values }) as Ask) : each)),
    `${ask.label}: ${what} changed`,
  );
function add(): void {
  const name = firstFree(
    (count) => `value_${asks.value.length + count}`,
    asks.value.map((each) => each.name),
  );
  setAsks([...asks.value, { name, label: 'A value', type: 'text' }], 'Something more is asked for');
}
const remove = (ask: Ask) =>
  setAsks(
    asks.value.filter(({ name }) => name !== ask.name),
    `${ask.label} is not asked for`,
  );

/** While nothing stands for it in a formula, its name follows what it is called. */
function rename(ask: Ask, typed: string): void {
  const label = typed.trim();
  if (label === '' || label === ask.label) return;
  const isUsed = JSON.stringify({ ...template, asks: [] }).includes(`${ASK}.${ask.name}`);
  const plain = label
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/[^a-z0-9]+/g, '_')
    .replaceAll(/^[_0-9]+|_+$/g, '');
  const others = asks.value.filter((each) => each !== ask).map((each) => each.name);
  const name =
    isUsed || plain === '' ? ask.name : firstFree((count) => (count === 1 ? plain : `${plain}_${count}`), others);
  set(ask, { label, name }, 'name');
}
const KINDS: Readonly<Record<Ask['type'], string>> = {
  text: 'Text',
  number: 'Number',
  percent: 'Percent',
  date: 'Date',
  boolean: 'Yes or no',
  choice: 'Choice',
};
const kinds = ASK_TYPES.map((value) => ({ value, label: KINDS[value] }));
function setKind(ask: Ask, type: Ask['type']): void {
  set(
    ask,
    { type, allowed: type === 'choice' ? (ask.allowed ?? ['first', 'second']) : undefined, default: undefined },
    'kind',
  );
}
const setAllowed = (ask: Ask, typed: string) => {
  const allowed = [...new Set(typed.split(',').flatMap((each) => each.trim() || []))];
  if (allowed.length > 0) set(ask, { allowed }, 'values');
};
</script>

<template>
  <div class="asks">
    <article v-for="(ask, at) in asks" :key="at" :aria-label="`Asked for: ${ask.label}`">
      <LabelledField
        :id="`ask-${at}`"
        :model-value="ask.label"
        label="What is asked for"
        :hint="`In formulas: ${ASK}.${ask.name}`"
        @change="rename(ask, ($event.target as HTMLInputElement).value)"
      />
      <label class="kind"
        ><span>Kind</span>
        <PickOne :label="`Kind of ${ask.label}`" :value="ask.type" :options="kinds" @choose="setKind(ask, $event)" />
      </label>
      <LabelledField
        v-if="ask.type === 'choice'"
        :id="`ask-values-${at}`"
        :model-value="(ask.allowed ?? []).join(', ')"
        label="One of"
        hint="With commas between them."
        @change="setAllowed(ask, ($event.target as HTMLInputElement).value)"
      />
      <div class="kind">
        <span>Usually</span>
        <FormulaField
          :source="ask.default"
          :label="`What ${ask.label} usually is`"
          optional
          @write="set(ask, { default: $event }, 'usual value')"
        />
      </div>
      <label class="check">
        <Checkbox
          binary
          :model-value="ask.optional === true"
          @update:model-value="set(ask, { optional: $event || undefined }, 'need')"
        />
        May stay blank
      </label>
      <button type="button" class="in-words" @click="remove(ask)">
        Remove<span class="visually-hidden"> {{ ask.label }}</span>
      </button>
    </article>
    <button type="button" class="in-words" @click="add">Ask for something …</button>
  </div>
</template>

<style scoped>
.asks {
  display: grid;
  gap: 12px;
  justify-items: start;
}
article {
  display: grid;
  gap: 8px;
  justify-items: stretch;
  width: 100%;
  padding: 10px 12px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
.kind {
  display: grid;
  gap: 3px;
}
.kind span {
  font-weight: 500;
}
.check {
  display: flex;
  gap: 8px;
}
article > button {
  justify-self: start;
}
</style>
