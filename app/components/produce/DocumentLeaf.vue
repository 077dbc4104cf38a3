<script setup lang="ts">
import { MARGIN_NOTES } from '#core/template/margin-note';
import type { Proof } from '~/stores/proof';

/** What is particular to this document: its circumstances, and the sections that it leaves out. */
const { proof, edition } = defineProps<{ proof: Proof; edition: string | undefined; frozen: boolean }>();
defineEmits<{ edition: [id: string | undefined] }>();
const trialAddress = computed(() => addressOf('GET /productions/{id}/trial', { parameters: { id: proof.id } }));
/** Stands for the edition that the record asks for. */
const OWN = '*';
const choices = computed(() => [
  { id: OWN, label: `As the ${proof.record.called} says${edition ? '' : `: ${label(proof.edition)}`}` },
  ...proof.editions,
]);
const label = (id: string) => proof.editions.find((each) => each.id === id)?.label ?? id;
</script>

<template>
  <section class="document">
    <dl>
      <dt>Template</dt>
      <dd>{{ proof.template.name }}, version {{ proof.template.version }}</dd>
      <dt>Title</dt>
      <dd>{{ proof.title }}</dd>
      <dt>Edition</dt>
      <dd>
        <Select
          v-if="proof.editions.length > 1"
          :model-value="edition ?? OWN"
          :options="choices"
          option-label="label"
          option-value="id"
          aria-label="Edition"
          size="small"
          fluid
          :disabled="frozen"
          @update:model-value="$emit('edition', $event === OWN ? undefined : $event)"
        />
        <template v-else>{{ label(proof.edition) }}</template>
      </dd>
      <dt>Issue date</dt>
      <dd>{{ dayText(proof.issueDate) }}</dd>
      <dt>Currency</dt>
      <dd>{{ proof.currency ?? 'none' }}</dd>
      <dt>Pages</dt>
      <dd>{{ proof.pages.pages.length }}</dd>
      <template v-if="proof.annexes.length > 0">
        <dt>Joined</dt>
        <dd>{{ proof.annexes.map((annex) => annex.label).join(', ') }}, at the end</dd>
      </template>
    </dl>
    <p class="trial">
      <a :href="trialAddress" target="_blank" rel="noopener">Open a trial PDF</a>
      <span class="quiet">: marked on every page, without a number.</span>
    </p>
    <template v-if="proof.leftOut.length > 0">
      <h3>Left out for this {{ proof.record.called }}</h3>
      <ul>
        <li v-for="left in proof.leftOut" :key="left.block">{{ MARGIN_NOTES.leftOut(left.note) }}</li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.document {
  padding: 12px 14px;
}
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 5px 10px;
}
dt {
  color: var(--ink-quiet);
}
dd {
  overflow-wrap: anywhere;
}
.trial {
  margin-top: 14px;
}
h3 {
  margin: 16px 0 4px;
  font: 500 13px/18px var(--sans);
}
li {
  color: var(--slate);
  font: italic 12.5px/18px var(--serif);
}
</style>
