<script setup lang="ts">
import { Decimal } from '#core/money/decimal';
import type { DocumentChange } from '#core/production/document-change';
import type { PrintedFigure } from '#core/production/composition';
import type { Answer } from '~/composables/api';

/** From a total that was agreed back to the one value that reaches it, to be tried on the proof. */
const { production, figure, make } = defineProps<{
  production: string;
  figure: PrintedFigure;
  /** Gives whether it was done. */
  make: (change: DocumentChange, label: string) => Promise<boolean>;
}>();
type Worked = Answer<'GET /productions/{id}/work-back'>;
type Way = Worked['ways'][number];

const wanted = ref('');
const worked = shallowRef<Worked>();
const faulty = ref('');
const trying = ref<string>();
const { busy, problem, attempt } = useAttempt();
watch([() => figure.name, () => production], () => (worked.value = undefined));

const MONEY = { name: 'wanted', label: figure.label, type: 'money', nullable: false, readonly: false } as const;
async function find(): Promise<void> {
  const read = typedValue(MONEY, wanted.value);
  faulty.value =
    read.problem ?? (read.value === undefined ? `Write the sum without groups, such as ${numberText('18000.5')}.` : '');
  if (faulty.value) return;
  await attempt(async () => {
    worked.value = await api('GET /productions/{id}/work-back', {
      parameters: { id: production },
      query: { figure: figure.name, wanted: read.value! },
    });
  });
}

const sum = (amount: string) => sumText(amount, worked.value?.currency ?? null);
const typed = (number: string, { isPercent }: Way) =>
  number === '' ? 'none' : `${numberText(number)}${isPercent ? '\u202f%' : ''}`;
const isExact = ({ difference }: Way) => Decimal.of(difference).isZero();
function nearness({ difference }: Way): string {
  const off = Decimal.of(difference);
  if (off.isZero()) return 'exactly';
  return `${sum(off.abs().toFixed())} ${off.isNegative() ? 'less' : 'more'}`;
}
async function tryOut({ path, label, after }: Way): Promise<void> {
  trying.value = path;
  await make({ type: 'value', path, value: after }, label);
  trying.value = undefined;
}
</script>

<template>
  <section class="work-back">
    <h4>Work back</h4>
    <form @submit.prevent="find">
      <InputText
        v-model="wanted"
        size="small"
        inputmode="decimal"
        :aria-label="`What ${figure.label} should come to`"
        :placeholder="`What ${figure.label} should be`"
        :invalid="faulty !== ''"
      />
      <Button
        type="submit"
        label="Find"
        size="small"
        severity="secondary"
        outlined
        :loading="busy"
        :disabled="!wanted.trim()"
      />
    </form>
    <p v-if="faulty" class="failed" role="alert">{{ faulty }}</p>
    <RefusedNote :problem="problem" />
    <template v-if="worked">
      <p v-if="worked.ways.length === 0" class="quiet" role="status">
        No single discount, price or quantity reaches this sum. Change several of them on the record.
      </p>
      <p v-else-if="!worked.ways.some(isExact)" class="quiet" role="status">
        No single value reaches it exactly. These come nearest:
      </p>
      <ul>
        <li v-for="way in worked.ways" :key="way.path">
          <p>
            <b>{{ way.label }}</b> {{ typed(way.before, way) }} → <b>{{ typed(way.after, way) }}</b>
          </p>
          <p :class="isExact(way) ? 'exact' : 'quiet'">{{ sum(way.total) }}, {{ nearness(way) }}</p>
          <p v-for="effect in way.internal" :key="effect.label" class="quiet">
            {{ effect.label }}: {{ effect.before }} → {{ effect.after }}
          </p>
          <Button
            label="Try on the proof"
            size="small"
            severity="secondary"
            text
            :aria-label="`Try on the proof: ${way.label}`"
            :loading="trying === way.path"
            @click="tryOut(way)"
          />
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.work-back {
  padding: 0 14px 16px;
}
h4 {
  margin: 4px 0;
  color: var(--ink-quiet);
  font: 400 12px/16px var(--sans);
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
}
ul {
  margin-top: 6px;
}
li {
  position: relative;
  padding: 6px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
li :deep(button) {
  margin-left: -8px;
}
b {
  font-weight: 500;
}
.exact {
  color: var(--verdigris);
}
.failed {
  color: var(--brick);
}
</style>
