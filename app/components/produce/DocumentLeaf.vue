<script setup lang="ts">
import type { DocumentChange } from '#core/production/document-change';
import type { FieldSchema } from '#core/record/schema';
import type { Chosen } from '#core/contract/page-reads';
import type { Proof } from '~/stores/proof';

/** What is particular to this document: its circumstances, and what is otherwise in it than the template and the record say. */
const { proof } = defineProps<{
  proof: Proof;
  frozen: boolean;
  /** Whether the person may change the record. */
  mayWrite: boolean;
  /** Gives whether it was done. */
  make: (change: DocumentChange, label: string) => Promise<boolean>;
  /** Gives a value for this document alone; gives why it was refused, or nothing. */
  give: (path: string, field: FieldSchema, value: string) => Promise<string | undefined>;
}>();
const emit = defineEmits<{
  choose: [choice: Chosen];
  takeBack: [id: string];
  write: [id: string];
  show: [value: string];
}>();
const dayProblem = ref('');
/** Today needs no choice. */
function chooseDay(day: string | undefined): void {
  const { from, until } = proof.issueDates;
  dayProblem.value = '';
  if (day === proof.issueDate) return;
  if (day !== undefined && (day < from || day > until))
    dayProblem.value = `Choose a day from ${dayText(from)} to ${dayText(until)}: numbers follow the days.`;
  else emit('choose', { issueDate: day === until ? undefined : day });
}
const trialAddress = computed(() => addressOf('GET /productions/{id}/trial', { parameters: { id: proof.id } }));
const chosenFrom = (all: readonly { id: string; label: string }[]) =>
  all.map(({ id, label: called }) => ({ value: id, label: called }));
/** Stands for the edition that the record asks for. */
const OWN = '*';
const choices = computed(() => [
  {
    value: OWN,
    label: `As the ${proof.record.called} says${proof.choices.edition ? '' : `: ${label(proof.edition)}`}`,
  },
  ...chosenFrom(proof.editions),
]);
/** The first plan is the template's own choice, and needs no word in the address. */
const choosePlan = (id: string) => (id === proof.template.plans[0]!.id ? undefined : id);
const label = (id: string) => proof.editions.find((each) => each.id === id)?.label ?? id;
</script>

<template>
  <section class="document">
    <dl>
      <dt>Template</dt>
      <dd>{{ proof.template.name }}, version {{ proof.template.version }}</dd>
      <dt>Title</dt>
      <dd>{{ proof.title }}</dd>
      <template v-if="proof.revises">
        <dt>Number</dt>
        <dd>
          <PickOne
            label="Number"
            :value="proof.revises.asNew ? 'new' : 'next'"
            :options="[
              { value: 'next', label: `${proof.revises.next}, the next revision` },
              { value: 'new', label: 'A new number' },
            ]"
            fluid
            :disabled="frozen"
            @choose="emit('choose', { asNew: $event === 'new' || undefined })"
          />
        </dd>
      </template>
      <dt>Edition</dt>
      <dd>
        <PickOne
          v-if="proof.editions.length > 1"
          label="Edition"
          :value="proof.choices.edition ?? OWN"
          :options="choices"
          fluid
          :disabled="frozen"
          @choose="emit('choose', { edition: $event === OWN ? undefined : $event })"
        />
        <template v-else>{{ label(proof.edition) }}</template>
      </dd>
      <template v-if="proof.template.plans.length > 1">
        <dt>Plan</dt>
        <dd>
          <PickOne
            label="Plan"
            :value="proof.plan"
            :options="chosenFrom(proof.template.plans)"
            fluid
            :disabled="frozen"
            @choose="emit('choose', { plan: choosePlan($event) })"
          />
        </dd>
      </template>
      <dt>Issue date</dt>
      <dd>
        <template v-if="proof.issueDates.from === proof.issueDates.until">{{ dayText(proof.issueDate) }}</template>
        <template v-else>
          <PickDay
            :value="proof.issueDate"
            label="Issue date"
            :busy="frozen"
            @choose="chooseDay"
            @unclear="dayProblem = `“${$event}” is not a day. Write it as ${dayInFigures(new Date())}.`"
          />
          <p v-if="dayProblem" class="fault" role="alert">{{ dayProblem }}</p>
        </template>
      </dd>
      <dt>Currency</dt>
      <dd>{{ proof.currency ?? 'none' }}</dd>
      <dt>Pages</dt>
      <dd>{{ proof.pages.pages.length }}</dd>
      <dt>Joined</dt>
      <dd><JoinedFiles :proof="proof" :frozen="frozen" :make="make" /></dd>
    </dl>
    <AskedFields :proof="proof" :frozen="frozen" :give="give" />
    <template v-if="proof.afterFiling.length > 0">
      <h3>After filing</h3>
      <ol class="after">
        <li v-for="sentence in proof.afterFiling" :key="sentence">{{ sentence }}</li>
      </ol>
    </template>
    <p class="trial">
      <a :href="trialAddress" target="_blank" rel="noopener">Open a trial PDF</a>
      <span class="quiet">: marked on every page, without a number.</span>
    </p>
    <DocumentChanges
      :proof="proof"
      :frozen="frozen"
      :may-write="mayWrite"
      @write="$emit('write', $event)"
      @take-back="$emit('takeBack', $event)"
      @show="$emit('show', $event)"
    />
    <DocumentParts :proof="proof" :frozen="frozen" :make="make" />
  </section>
</template>

<style scoped>
.document {
  padding: 12px 14px;
}
dl {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 5px 10px;
}
dt {
  color: var(--ink-quiet);
}
dd {
  overflow-wrap: anywhere;
}
h3 {
  margin: 16px 0 4px;
  font: 500 13px/18px var(--sans);
}
.after {
  padding-left: 18px;
  list-style: decimal;
  overflow-wrap: anywhere;
}
.fault {
  margin-top: 4px;
  color: var(--brick);
}
.trial {
  margin-top: 14px;
}
</style>
