<script setup lang="ts">
import { MARGIN_NOTES } from '#core/template/margin-note';
import type { Proof } from '~/stores/proof';

/** What is particular to this document: its circumstances, and the sections that it leaves out. */
const { proof, edition } = defineProps<{ proof: Proof; edition: string | undefined; frozen: boolean }>();
defineEmits<{ edition: [id: string | undefined] }>();
const trialAddress = computed(() => addressOf('GET /productions/{id}/trial', { parameters: { id: proof.id } }));
const label = (id: string) => proof.editions.find((each) => each.id === id)?.label ?? id;
</script>

<template>
  <section class="document">
    <dl>
      <dt>Template</dt>
      <dd>{{ proof.template.name }}, version {{ proof.template.version }}</dd>
      <dt>Title</dt>
      <dd>{{ proof.title }}</dd>
      <dt><label for="edition">Edition</label></dt>
      <dd>
        <select
          v-if="proof.editions.length > 1"
          id="edition"
          :value="edition ?? ''"
          :disabled="frozen"
          @change="$emit('edition', ($event.target as HTMLSelectElement).value || undefined)"
        >
          <option value="">
            As the {{ proof.record.called }} says{{ edition ? '' : `: ${label(proof.edition)}` }}
          </option>
          <option v-for="each in proof.editions" :key="each.id" :value="each.id">{{ each.label }}</option>
        </select>
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
select {
  width: 100%;
  padding: 2px 4px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
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
