<script setup lang="ts">
import { type Meaning, MEANINGS } from '#core/formula/meanings';
import type { Figure, FigureType } from '#core/sheet/figure';
import { meaningFits } from '#core/sheet/check-sheet';
import { FIGURE_TYPES } from '#core/sheet/figure';
import type { SheetFormula } from '#core/sheet/formulas';
import type { FigureView } from '#core/sheet/view';

/** What is declared about the opened figure: name, label, type, rounding, meaning, and where it is used. */
const { entry, view, labelOf } = defineProps<{
  entry: SheetFormula;
  view: FigureView | undefined;
  labelOf: (key: string) => string;
  /** Why it cannot be renamed or deleted, when that was tried. */
  refusal: string | undefined;
}>();
const emit = defineEmits<{
  rename: [name: string];
  edit: [part: Partial<Figure>, words: string];
  remove: [];
  open: [key: string];
}>();

const named = computed(() => (entry.figure ?? entry.derived)!);
const meanings = computed(() => MEANINGS.filter((meaning) => meaningFits(meaning, entry.list)));
const TYPES: Record<FigureType, string> = {
  amount: 'Amount (rounded)',
  price: 'Price (all decimals)',
  number: 'Number',
  percent: 'Percentage',
  text: 'Text',
  date: 'Date',
  boolean: 'Yes or no',
};
const TERMS: Partial<Record<Meaning, string>> = {
  'line-net': 'BT-131',
  'sum-of-lines': 'BT-106',
  allowances: 'BT-107',
  charges: 'BT-108',
  'net-total': 'BT-109',
  'tax-total': 'BT-110',
  'gross-total': 'BT-112',
  prepaid: 'BT-113',
  rounding: 'BT-114',
  payable: 'BT-115',
  'tax-base': 'BT-116',
  'tax-amount': 'BT-117',
};
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim();
/** Stands for no meaning: the component shows nothing for a blank value. */
const NONE = '-';
const wordsOf = (meaning: Meaning) => {
  const term = TERMS[meaning];
  return `${meaning.replaceAll('-', ' ')}${term ? ` (${term})` : ''}`;
};
const hasDigits = computed(() => ['price', 'number', 'percent'].includes(entry.figure?.type ?? ''));
</script>

<template>
  <section class="figure-leaf">
    <Message v-if="refusal" severity="error">{{ refusal }}</Message>
    <label>
      <span>Label</span>
      <InputText
        :key="entry.key + named.label"
        size="small"
        :model-value="named.label"
        @change="typed($event) && emit('edit', { label: typed($event) }, 'Label changed')"
      />
    </label>
    <label>
      <span>Name in formulas</span>
      <InputText
        :key="entry.key"
        size="small"
        :model-value="named.name"
        class="mono"
        @change="emit('rename', typed($event))"
      />
    </label>
    <template v-if="entry.figure">
      <label>
        <span>Type</span>
        <PickOne
          label="Type"
          :value="entry.figure.type"
          :options="FIGURE_TYPES.map((type) => ({ value: type, label: TYPES[type] }))"
          @choose="emit('edit', { type: $event }, 'Type changed')"
        />
      </label>
      <label v-if="hasDigits">
        <span>Round to decimals</span>
        <InputNumber
          :model-value="entry.figure.digits ?? null"
          :min="-6"
          :max="12"
          :use-grouping="false"
          show-buttons
          size="small"
          fluid
          placeholder="not rounded"
          aria-label="Round to decimals"
          @update:model-value="emit('edit', { digits: ($event as number | null) ?? undefined }, 'Rounding changed')"
        />
      </label>
      <label>
        <span>Meaning</span>
        <PickOne
          label="Meaning"
          :value="entry.figure.meaning ?? NONE"
          :options="[
            { value: NONE, label: 'none' },
            ...meanings.map((meaning) => ({ value: meaning, label: wordsOf(meaning) })),
          ]"
          @choose="emit('edit', { meaning: $event === NONE ? undefined : ($event as Meaning) }, 'Meaning changed')"
        />
      </label>
      <label class="check">
        <Checkbox
          binary
          :model-value="entry.figure.internal ?? false"
          @update:model-value="emit('edit', { internal: !entry.figure.internal || undefined }, 'Printing changed')"
        />
        Internal: never printed
      </label>
    </template>
    <h4>Where it is used</h4>
    <ul v-if="view && view.usedBy.length > 0">
      <li v-for="key in view.usedBy" :key="key">
        <button type="button" @click="emit('open', key)">{{ labelOf(key) }}</button>
      </li>
    </ul>
    <WhereUsed v-if="view && view.places.length > 0" :uses="view.places" />
    <p v-if="view && view.usedBy.length + view.places.length === 0" class="quiet">Nowhere yet.</p>
    <button type="button" class="remove" @click="emit('remove')">Delete</button>
  </section>
</template>

<style scoped>
.figure-leaf {
  display: grid;
  gap: 8px;
  padding: 12px 14px;
}
label {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  align-items: center;
  gap: 8px;
}
label span {
  color: var(--ink-quiet);
  font-size: 12px;
}
.check {
  display: flex;
  padding-left: 120px;
}
h4 {
  margin: 8px 0 0;
  color: var(--ink-quiet);
  font: 400 12px/16px var(--sans);
}
li {
  padding: 2px 0;
}
li button,
.remove {
  justify-self: start;
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  text-align: start;
  cursor: pointer;
}
.remove {
  margin-top: 4px;
  color: var(--brick);
}
</style>
