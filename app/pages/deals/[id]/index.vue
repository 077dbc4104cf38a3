<script setup lang="ts">
import type { RecordSnapshot } from '#core/record/snapshot';
import { isRecord, isRecordList } from '#core/record/snapshot';
import { memberPath } from '#core/record/value-path';
import { useMeStore } from '~/stores/me';

const route = useRoute();
const toast = useToast();
const store = useMeStore();
const id = computed(() => String(route.params.id));
const focusedPath = computed(() => (typeof route.query.field === 'string' ? route.query.field : undefined));

const loaded = useLoaded(() => api('GET /deals/{id}', { parameters: { id: id.value } }));
const documents = useLoaded(() =>
  api('GET /documents', { query: { recordId: id.value, sort: 'created', descending: true, top: 50 } }),
);
const templates = useLoaded(() => api('GET /templates'));
/** The last correction, so that it can be taken back. */
const lastChange = shallowRef<{ type: string; id: string; field: string; before: string }>();

watch(id, () => Promise.all([loaded.reload(), documents.reload(), templates.reload()]), { immediate: true });
useKeys({
  'Control+Enter': () => produce(templates.value.value?.[0]?.id),
  'Control+z': undo,
  r: loaded.reload,
});

const barred = computed(() => store.mayNotChange('Deal'));
const deal = computed(() => loaded.value.value?.deal);
const schema = computed(() => loaded.value.value?.schema);
const name = computed(() => (typeof deal.value?.fields.name === 'string' ? deal.value.fields.name : id.value));
const lines = computed(() =>
  isRecordList(deal.value?.fields.lines ?? null) ? (deal.value!.fields.lines as RecordSnapshot[]) : [],
);
const fitting = computed(() => (templates.value.value ?? []).filter((template) => template.recordType === 'Deal'));

const GROUPS = [
  {
    title: 'Deal',
    fields: [
      'name',
      'stage',
      'owner',
      'amount',
      'currency',
      'closes_on',
      'order_number',
      'validity_days',
      'deposit_percent',
      'discount_percent',
      'discount_amount',
      'quote_language',
      'brand',
      'incoterm',
    ],
  },
  {
    title: 'Site',
    fields: ['site_address', 'scope_note', 'site_works', 'heating', 'glazing', 'snow_zone', 'wind_zone', 'wanted_by'],
  },
];
const related = computed(() =>
  ['account', 'contact'].flatMap((relation) => {
    const record = deal.value?.fields[relation];
    return record && isRecord(record) ? [{ relation, record }] : [];
  }),
);
const isFocused = (path: string) => focusedPath.value === path;

async function write(
  record: RecordSnapshot,
  field: string,
  value: string,
  before = fieldInput(record.fields[field]),
): Promise<void> {
  try {
    await api('PATCH /fields', {
      body: { type: record.type, id: record.id, version: record.version ?? '', field, value },
    });
    lastChange.value = { type: record.type, id: record.id, field, before };
    await loaded.reload();
    toast.add({ severity: 'secondary', summary: 'Written to the CRM', detail: 'Ctrl Z takes it back.', life: 3_000 });
  } catch (thrown) {
    const problem = asProblem(thrown);
    toast.add({ severity: 'error', summary: problem.title, detail: problem.detail, life: 9_000 });
    await loaded.reload();
  }
}

async function undo(): Promise<void> {
  const change = lastChange.value;
  const record =
    change &&
    [deal.value, ...lines.value, ...related.value.map((each) => each.record)].find(
      (each) => each?.type === change.type && each.id === change.id,
    );
  if (!change || !record) return;
  await write(record, change.field, change.before);
}

function produce(templateId: string | undefined): void {
  if (templateId && !store.mayNot('prove')) void navigateTo(`/deals/${id.value}/produce/${templateId}`);
}
</script>

<template>
  <div class="deal">
    <WhereAmI :title="name"
      ><span class="quiet"><NuxtLink to="/deals">Deal</NuxtLink> · </span>{{ name }}</WhereAmI
    >
    <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
    <template v-else>
      <section class="record" aria-label="Record">
        <div v-if="!deal || !schema" class="fields"><Skeleton v-for="n in 14" :key="n" height="18px" /></div>
        <template v-else>
          <div class="fields">
            <dl v-for="group in GROUPS" :key="group.title">
              <h2>{{ group.title }}</h2>
              <template v-for="field in group.fields" :key="field">
                <EditableField
                  v-if="schema.types.Deal?.fields[field]"
                  :field="schema.types.Deal.fields[field]"
                  :value="deal.fields[field]"
                  :focused="isFocused(memberPath('deal', field))"
                  :why-not="barred"
                  @write="write(deal, field, $event)"
                />
              </template>
            </dl>
            <dl v-for="{ relation, record } in related" :key="relation">
              <h2>{{ schema.types[record.type]?.label }}</h2>
              <template v-for="(field, fieldName) in schema.types[record.type]?.fields" :key="fieldName">
                <EditableField
                  v-if="!field.target && field.name !== 'id'"
                  :field="field"
                  :value="record.fields[field.name]"
                  :focused="isFocused(memberPath(memberPath('deal', relation), field.name))"
                  :why-not="barred"
                  @write="write(record, field.name, $event)"
                />
              </template>
            </dl>
          </div>
          <h2 class="lines-title">
            Line items <span class="quiet">{{ lines.length }}</span>
          </h2>
          <LineItems
            v-if="lines.length > 0"
            :lines="lines"
            :schema="schema"
            :focused-path="focusedPath"
            :why-not="barred"
            @write="write"
          />
          <p v-else class="quiet">This deal has no line items yet. Add them in the CRM.</p>
        </template>
      </section>
      <aside class="paper" aria-label="Documents">
        <h2>Documents</h2>
        <ProblemNote v-if="documents.problem.value" :problem="documents.problem.value" @again="documents.reload" />
        <DocumentStack
          v-else-if="documents.value.value?.documents.length"
          :documents="documents.value.value.documents"
        />
        <p v-else-if="documents.value.value" class="quiet none">Nothing has been produced for this deal yet.</p>
        <div class="produce">
          <PermittedButton
            v-for="(template, index) in fitting"
            :key="template.id"
            :label="index === 0 ? `Produce ${template.name}` : template.name"
            :severity="index === 0 ? undefined : 'secondary'"
            :outlined="index > 0"
            fluid
            :why-not="store.mayNot('prove')"
            @press="produce(template.id)"
          />
        </div>
      </aside>
    </template>
  </div>
</template>

<style scoped>
.deal {
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
.produce {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
.deal > :deep(.problem) {
  grid-column: 1 / 3;
}
.produce :deep(.p-button-outlined) {
  background: var(--sheet);
  color: var(--ink);
}
</style>
