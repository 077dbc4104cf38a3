<script setup lang="ts">
import type { RecordSnapshot } from '#core/record/snapshot';
import { isRecord, isRecordList } from '#core/record/snapshot';
import { documentsOn } from '#core/contract/page-reads';
import { calledRecord } from '#core/record/layout';
import { memberPath } from '#core/record/value-path';
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

const route = useRoute();
const store = useMeStore();
const types = useRecordTypesStore();
const type = computed(() => String(route.params.type));
const called = computed(() => types.called(type.value));
const id = computed(() => String(route.params.id));
/** The template whose proof one came from. */
const proofOf = computed(() => (typeof route.query.proof === 'string' ? route.query.proof : undefined));
const asked = computed(() => (typeof route.query.field === 'string' ? route.query.field : undefined));

const loaded = useLoaded(() => api('GET /records/{type}/{id}', { parameters: { type: type.value, id: id.value } }));
const documents = useLoaded(() => api('GET /documents', { query: documentsOn(type.value, id.value) }));
const templates = useLoaded(() =>
  api('GET /records/{type}/{id}/templates', { parameters: { type: type.value, id: id.value } }),
);
const inHand = useLoaded(() =>
  api('GET /records/{type}/{id}/in-hand', { parameters: { type: type.value, id: id.value } }),
);
const all = [loaded, documents, templates, inHand];
watch([type, id], () => Promise.all(all.map(({ reload }) => reload())), { immediate: true });
useKeys({
  'Control+Enter': () => produce(templates.value.value?.[0]?.id),
  'Control+z': () => void changes.undo(),
  'Control+Shift+z': () => void changes.redo(),
  'Control+y': () => void changes.redo(),
  r: loaded.reload,
});

const barred = computed(() => store.mayNotChange(type.value));
const record = computed(() => loaded.value.value?.record);
const schema = computed(() => loaded.value.value?.schema);
const name = computed(() => (record.value && schema.value ? calledRecord(record.value, schema.value) : id.value));

/** Fields in groups, of a record and of those that it leads to. */
const groupsOf = (record: RecordSnapshot) => {
  const known = schema.value?.types[record.type];
  return (known?.layout?.groups ?? []).map(({ label, fields }) => ({
    label,
    fields: fields.flatMap((field) => known?.fields[field] ?? []),
  }));
};
/** Records that one leads to have a page of their own, where documents are made from such. */
const pathTo = ({ type: of, id: its }: RecordSnapshot) => (types.named(of) ? recordPath(of, its) : undefined);
const related = computed(() =>
  Object.entries(record.value?.fields ?? {}).flatMap(([relation, value]) =>
    value && isRecord(value) ? [{ path: relation, record: value }] : [],
  ),
);
const lists = computed(() =>
  Object.entries(record.value?.fields ?? {}).flatMap(([relation, value]) => {
    const field = schema.value?.types[type.value]?.fields[relation];
    return field?.target && isRecordList(value) ? [{ relation, field, items: value }] : [];
  }),
);
/** Paths begin with what a template calls the record, which is all the same here. */
const focusedPath = computed(() => asked.value?.slice(asked.value.indexOf('.') + 1));
const isFocused = (path: string) => focusedPath.value === path;

const changes = useRecordChanges({
  schema: () => schema.value,
  records: () => [
    ...(record.value ? [record.value] : []),
    ...lists.value.flatMap(({ items }) => items),
    ...related.value.map((each) => each.record),
  ],
  reload: loaded.reload,
});

function produce(templateId: string | undefined): void {
  if (templateId && !store.mayNot('prove')) void navigateTo(producePath(type.value, id.value, templateId));
}

await soon(types.load(), loaded.first, documents.first, templates.first);
</script>

<template>
  <div class="record-page">
    <WhereAmI :title="name" :way="[{ label: types.named(type)?.plural ?? type, to: listPath(type) }]" />
    <ProblemNote
      v-if="loaded.problem.value"
      :problem="loaded.problem.value"
      :way="{
        label: `All ${(types.named(type)?.plural ?? 'records').toLowerCase()}`,
        to: types.named(type) ? listPath(type) : '/',
      }"
      @again="loaded.reload"
    />
    <template v-else>
      <section class="record" aria-label="Record">
        <NuxtLink v-if="proofOf" class="back" :to="producePath(type, id, proofOf)">Back to the proof</NuxtLink>
        <div v-if="!record || !schema" class="fields"><Skeleton v-for="n in 14" :key="n" height="18px" /></div>
        <template v-else>
          <div class="fields">
            <template v-for="{ path, record: shown } in [{ path: '', record }, ...related]" :key="path">
              <section v-for="group in groupsOf(shown)" :key="group.label" :aria-label="group.label">
                <h2>
                  <NuxtLink v-if="path && pathTo(shown)" :to="pathTo(shown)">{{ group.label }}</NuxtLink>
                  <template v-else>{{ group.label }}</template>
                </h2>
                <dl>
                  <EditableField
                    v-for="field in group.fields"
                    :key="field.name"
                    :field="field"
                    :value="shown.fields[field.name]"
                    :focused="isFocused(path ? memberPath(path, field.name) : field.name)"
                    :why-not="barred"
                    :write="(value) => changes.write(shown, field.name, value)"
                  />
                </dl>
              </section>
            </template>
          </div>
          <template v-for="{ relation, field, items } in lists" :key="relation">
            <h2 class="lines-title">
              {{ field.label }} <span class="quiet">{{ items.length }}</span>
            </h2>
            <LineItems
              v-if="items.length > 0"
              :items="items"
              :relation="field"
              :schema="schema"
              :path-to="pathTo"
              :focused-path="focusedPath"
              :why-not="barred"
              :write="changes.write"
            />
            <p v-else class="quiet">
              This {{ called }} has no {{ field.label.toLowerCase() }} yet. Add them in the CRM.
            </p>
          </template>
        </template>
      </section>
      <aside class="paper" aria-label="Documents">
        <DocumentsInHand v-if="inHand.value.value?.length" :documents="inHand.value.value" :record="{ type, id }" />
        <h2>Documents</h2>
        <ProblemNote v-if="documents.problem.value" :problem="documents.problem.value" @again="documents.reload" />
        <DocumentStack
          v-else-if="documents.value.value?.documents.length"
          :documents="documents.value.value.documents"
        />
        <p v-else-if="documents.value.value" class="quiet none">Nothing has been produced for this {{ called }} yet.</p>
        <ProduceChoice
          :templates="templates.value.value"
          :problem="templates.problem.value"
          :called="called"
          @produce="produce"
          @again="templates.reload"
        />
      </aside>
    </template>
  </div>
</template>

<style scoped>
.record-page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  height: 100%;
}
.record {
  padding: 18px 24px 40px;
  overflow: auto;
  background: var(--sheet);
  border-right: 1px solid var(--hairline);
}
.back {
  display: inline-block;
  margin-bottom: 12px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 16px 36px;
}
h2 {
  margin-bottom: 6px;
  font: 600 14px/18px var(--serif);
}
.lines-title {
  margin: 24px 0 6px;
}
.lines-title span {
  font: 400 13px/18px var(--sans);
}
.paper {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 18px 16px;
  overflow: auto;
}
.none {
  padding: 10px 0;
}
.record-page > :deep(.problem) {
  grid-column: 1 / 3;
}
@media (max-width: 900px) {
  .record-page {
    display: block;
    overflow: auto;
  }
  .record,
  .paper {
    overflow: visible;
  }
  .record {
    padding-bottom: 24px;
    border-right: 0;
    border-bottom: 1px solid var(--hairline);
  }
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
