<script setup lang="ts">
import type { Finding } from '#core/production/findings/finding';
import type { FieldSchema } from '#core/record/schema';
import type { RouteLocationRaw } from 'vue-router';
import type { Proof } from '~/stores/proof';
import { useRecordTypesStore } from '~/stores/record-types';

/** The findings, each with its ways out: set the field, see the workings, skip with a reason. */
const { findings, skipped, proved, read, record, whyNot, fields, mayNotSet, set, give, figureTo } = defineProps<{
  findings: readonly Finding[];
  skipped: Readonly<Record<string, string>>;
  proved: number;
  read: number;
  record: { type: string; id: string };
  /** That the proof is of. */
  template: string;
  /** Why the person may not skip and file. */
  whyNot: string | undefined;
  /** The fields that findings are about, by their paths. */
  fields: Proof['fields'];
  /** Why the person may not change the record. */
  mayNotSet: string | undefined;
  /** Writes a value to the record; gives why it was refused, or nothing. */
  set: (path: string, field: FieldSchema, value: string) => Promise<string | undefined>;
  /** Gives a value for this document alone; gives why it was refused, or nothing. */
  give: (path: string, field: FieldSchema, value: string) => Promise<string | undefined>;
  /** Where an author changes the figure of some workings. */
  figureTo: (workings: string | undefined) => RouteLocationRaw | undefined;
}>();
const emit = defineEmits<{
  show: [finding: Finding];
  workings: [id: string];
  skip: [finding: Finding, reason: string];
  unskip: [finding: Finding];
}>();
const provedWords = computed(() => {
  if (proved === 0) return 'No column total could be checked.';
  return proved === 1 ? '1 column total checked.' : `${proved} column totals checked.`;
});
const types = useRecordTypesStore();
const called = computed(() => types.called(record.type));
/** The finding whose value is being typed, and where it goes. */
const giving = ref<string>();
const goesTo = ref<'record' | 'document'>('document');
const skipping = ref<string>();
const reason = ref('');
/** What the template asks for is on no record. */
const isAsked = (path: string) => fields[path] !== undefined && fields[path].record === undefined;
/** Files of a record are not typed. */
const isGivable = (path: string) => fields[path] !== undefined && fields[path].field.type !== 'image';
const vFocus = { mounted: (element: HTMLElement) => element.focus() };

function skip(finding: Finding): void {
  if (reason.value.trim()) emit('skip', finding, reason.value.trim());
  skipping.value = undefined;
  reason.value = '';
}
</script>

<template>
  <ol v-if="findings.length > 0">
    <FindingRow
      v-for="(finding, index) in findings"
      :key="finding.id"
      :finding="finding"
      :number="index + 1"
      :skipped="skipped[finding.id] !== undefined"
      @show="emit('show', finding)"
    >
      <p v-if="skipped[finding.id]" class="reason">Skipped: “{{ skipped[finding.id] }}”</p>
      <FieldInput
        v-if="giving === finding.id && fields[finding.path ?? '']"
        class="do"
        :field="fields[finding.path!]!.field"
        :value="fields[finding.path!]!.value"
        :label="`${fields[finding.path!]!.field.label}, ${goesTo === 'record' ? `on the ${called}` : 'for this document alone'}`"
        :write="(value) => (goesTo === 'record' ? set : give)(finding.path!, fields[finding.path!]!.field, value)"
        @done="giving = undefined"
      />
      <form v-else-if="skipping === finding.id" class="do" @submit.prevent="skip(finding)">
        <InputText
          v-model="reason"
          v-focus
          class="because"
          size="small"
          aria-label="Reason for skipping"
          placeholder="because …"
          @keydown.esc.stop="skipping = undefined"
        />
        <Button type="submit" label="Skip" size="small" severity="secondary" :disabled="!reason.trim()" />
      </form>
      <div v-else class="do">
        <template v-if="finding.path">
          <template v-if="isGivable(finding.path)">
            <PermittedButton
              v-if="fields[finding.path]!.record && !fields[finding.path]!.field.readonly"
              :label="`Set on the ${called}`"
              size="small"
              severity="secondary"
              outlined
              :why-not="mayNotSet"
              @press="((giving = finding.id), (goesTo = 'record'))"
            />
            <PermittedButton
              :label="fields[finding.path]!.record ? 'For this document alone' : 'Fill it in'"
              size="small"
              severity="secondary"
              outlined
              :why-not="whyNot"
              @press="((giving = finding.id), (goesTo = 'document'))"
            />
          </template>
          <Button
            v-if="!isAsked(finding.path)"
            :label="`Open the ${called}`"
            size="small"
            severity="secondary"
            outlined
            @click="
              navigateTo({ path: recordPath(record.type, record.id), query: { field: finding.path, proof: template } })
            "
          />
        </template>
        <Button
          v-if="finding.workings"
          label="See workings"
          size="small"
          severity="secondary"
          outlined
          @click="emit('workings', finding.workings)"
        />
        <Button
          v-if="figureTo(finding.workings)"
          label="Open the figure"
          size="small"
          severity="secondary"
          outlined
          @click="navigateTo(figureTo(finding.workings)!)"
        />
        <Button
          v-if="skipped[finding.id]"
          label="Undo skip"
          size="small"
          severity="secondary"
          outlined
          @click="emit('unskip', finding)"
        />
        <PermittedButton
          v-else-if="finding.ready"
          :label="finding.ready.label"
          size="small"
          severity="secondary"
          outlined
          :why-not="whyNot"
          @press="emit('skip', finding, finding.ready.reason)"
        />
        <PermittedButton
          v-else-if="finding.severity === 'warns'"
          label="Skip with a reason"
          size="small"
          severity="secondary"
          outlined
          :why-not="whyNot"
          @press="((skipping = finding.id), (reason = ''))"
        />
      </div>
    </FindingRow>
  </ol>
  <p class="proved quiet">
    <template v-if="findings.length === 0">No issues found. </template>{{ provedWords }} {{ read }} values read from the
    {{ called }}.
  </p>
</template>

<style scoped>
.reason {
  color: var(--slate);
  font-style: italic;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 7px;
}
.because {
  flex: 1;
  min-width: 120px;
}
.proved {
  padding: 12px 14px;
}
</style>
