<script setup lang="ts">
import { recordsAsked, ROWS, summaryAsked } from '#core/contract/page-reads';
import type { Answer } from '~/composables/api';
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

type RecordRow = Answer<'GET /records/{type}'>['records'][number];

/** The list of records of a type, page by page. */
const ALL_VIEWS = [
  { view: 'all', word: 'All' },
  { view: 'needs-quote', word: 'Needs a quote' },
  { view: 'quoted', word: 'Quoted' },
] as const;
type View = (typeof ALL_VIEWS)[number]['view'];

const route = useRoute();
const types = useRecordTypesStore();
const type = computed(() => String(route.params.type));
const known = computed(() => types.named(type.value));
const parts = computed(() => known.value?.parts ?? {});
const called = computed(() => types.called(type.value));
const many = computed(() => (known.value?.plural ?? 'Records').toLowerCase());
/** Only what needs quotes is looked at by them. */
const views = computed(() => (known.value?.needsQuote ? [...ALL_VIEWS] : []));
const list = useListQuery({ sort: 'day', descending: false });
const view = computed(() => list.read('view') ?? 'all');
const chosen = shallowRef<RecordRow[]>([]);
const store = useMeStore();

const page = useLoaded(() =>
  api('GET /records/{type}', { parameters: { type: type.value }, query: recordsAsked(list.query.value) }),
);
const filters = computed(() => summaryAsked(list.query.value));
const summary = useLoaded(() =>
  api('GET /record-types/{type}', { parameters: { type: type.value }, query: filters.value }),
);
const rows = computed(() => page.value.value?.records);
const isOld = useOlderThan(() => page.value.value?.knownAt, 60_000);
const filtered = computed(() => Object.values(filters.value).some(Boolean));

watch(list.whole, page.reload, { immediate: true });
watch(() => JSON.stringify(filters.value), summary.reload, { immediate: true });
// What was chosen stays chosen while it is still listed.
watch(page.value, (now) => {
  if (chosen.value.length === 0) return;
  const ids = new Set(chosen.value.map(({ id }) => id));
  chosen.value = (now?.records ?? []).filter(({ id }) => ids.has(id));
});

useKeys({ 'Control+Enter': produce, Escape: () => (chosen.value = []) });

/** Where the list is walked on from a record of it, by `[` and `]`. */
const walk = useWalk();
function walkFrom(records: readonly RecordRow[]): void {
  walk.begin({
    type: type.value,
    ids: records.map(({ id }) => id),
    query: records === rows.value ? list.query.value : undefined,
  });
}

function open({ id }: RecordRow): void {
  walkFrom(rows.value!);
  void navigateTo(recordPath(type.value, id));
}

const { busy: opening, problem: notOpened, attempt } = useAttempt();

/** Produces the first of the records that are chosen, with the likeliest template; `]` leads to the next of them. */
async function produce(): Promise<void> {
  const [first] = chosen.value;
  if (!first || store.mayNot('prove')) return;
  const { id } = first;
  await attempt(async () => {
    const [template] = await api('GET /records/{type}/{id}/templates', { parameters: { type: type.value, id } });
    // Its page says that there is no template, and what to do.
    if (!template) return void (await navigateTo(recordPath(type.value, id)));
    walkFrom(chosen.value.length > 1 ? chosen.value : rows.value!);
    await navigateTo(producePath(type.value, id, template.id));
  });
}

await soon(types.load(), page.first, summary.first);
</script>

<template>
  <div class="screen-root">
    <WhereAmI :title="known?.plural ?? 'Records'" />
    <ListScreen :problem="page.problem.value" @again="page.reload">
      <template #strip>
        <SelectButton
          v-if="views.length > 0"
          class="views"
          aria-label="Views"
          :model-value="view"
          :options="views"
          option-value="view"
          option-label="word"
          :allow-empty="false"
          size="small"
          @update:model-value="list.change({ view: $event === 'all' ? undefined : $event })"
          ><template #option="{ option }"
            >{{ option.word }} <b>{{ summary.value.value?.counts[option.view as View] ?? '' }}</b></template
          ></SelectButton
        >
        <SearchField :value="list.search.value" :label="`Search ${many}`" @search="list.change({ search: $event })" />
        <ChoiceFilter
          v-if="parts.stage"
          :label="parts.stage"
          :value="list.read('stage') ?? ''"
          :options="summary.value.value?.stages ?? []"
          @choose="list.change({ stage: $event })"
        />
        <ChoiceFilter
          v-if="parts.owner"
          :label="parts.owner"
          :value="list.read('owner') ?? ''"
          :options="summary.value.value?.owners ?? []"
          @choose="list.change({ owner: $event })"
        />
        <Button
          v-if="filtered"
          label="Clear filters"
          severity="secondary"
          text
          size="small"
          @click="list.clear('stage', 'owner')"
        />
        <span v-if="isOld" class="old" role="status"
          >The CRM can’t be reached. Showing data as of {{ momentText(page.value.value!.knownAt!) }}.</span
        >
      </template>

      <ListTable
        v-model:chosen="chosen"
        :rows="rows"
        :total="page.value.value?.total ?? 0"
        :per-page="ROWS.records"
        :list="list"
        :row-height="50"
        may-choose
        @open="open"
      >
        <Column field="name" :header="known?.label ?? 'Record'" sortable
          ><template #body="{ data }"
            ><NuxtLink class="record" :to="recordPath(type, data.id)" @click.stop="walkFrom(rows!)">{{
              data.name
            }}</NuxtLink></template
          ></Column
        >
        <Column v-if="parts.account" field="account" :header="parts.account" sortable
          ><template #body="{ data }"
            ><bdi>{{ data.account }}</bdi></template
          ></Column
        >
        <Column v-if="parts.stage" field="stage" :header="parts.stage" sortable
          ><template #body="{ data }">{{ data.stage }}</template></Column
        >
        <Column v-if="parts.amount" field="amount" :header="parts.amount" sortable class="end"
          ><template #body="{ data }">{{ sumText(data.amount, data.currency) || '–' }}</template></Column
        >
        <Column
          v-for="column in known?.columns ?? []"
          :key="column.name"
          :header="column.label"
          :class="{ end: isNumberField(column) }"
          ><template #body="{ data }"
            ><bdi>{{ fieldText(data.columns[column.name], column) }}</bdi></template
          ></Column
        >
        <Column header="Paper trail" class="trail"
          ><template #body="{ data }">
            <SheetGlyph v-if="data.paperTrail.length === 0 && known?.needsQuote" kind="quote" state="none" />
            <NuxtLink
              v-for="entry in data.paperTrail"
              :key="entry.id"
              class="glyph-link"
              :to="`/register/${entry.id}`"
              :aria-label="`${entry.kind} ${entry.number}`"
              @click.stop
              ><SheetGlyph :kind="entry.kind" :state="entry.state"
            /></NuxtLink> </template
        ></Column>
        <Column v-if="parts.day" field="day" :header="parts.day" sortable class="end quiet"
          ><template #body="{ data }">{{ data.day ? dayText(data.day) : '' }}</template></Column
        >
        <template #empty>
          <EmptyNote v-if="page.value.value?.knownAt === null" :title="`Reading the ${many} of the CRM`"
            >The first time takes a moment: they are listed here as soon as they are read.</EmptyNote
          >
          <EmptyNote v-else-if="filtered" :title="`No matching ${many}`">
            Nothing in this view has these words, stage and owner.
            <template #action
              ><Button
                label="Clear filters"
                severity="secondary"
                outlined
                size="small"
                @click="list.clear('stage', 'owner')"
            /></template>
          </EmptyNote>
          <EmptyNote v-else-if="view === 'quoted'" title="Nothing quoted yet"
            >Open a {{ called }} and produce its quote; it will be listed here.</EmptyNote
          >
          <EmptyNote v-else :title="`No ${many} here`"
            >When the CRM has {{ many }} for this view, they are listed here.</EmptyNote
          >
        </template>
      </ListTable>
      <template #foot>
        <footer v-if="chosen.length > 0" class="foot">
          <b>{{ chosen.length }} {{ chosen.length === 1 ? called : many }} selected</b>
          <span class="quiet names"
            ><template v-for="(each, index) in chosen.slice(0, 3)" :key="each.id"
              ><template v-if="index > 0">, </template><bdi>{{ each.name }}</bdi></template
            ><template v-if="chosen.length > 3"> and {{ chosen.length - 3 }} more</template></span
          >
          <Button class="open" label="Open" severity="secondary" outlined @click="open(chosen[0]!)" />
          <span v-if="notOpened" class="trouble" role="alert">{{ notOpened.detail }}</span>
          <PermittedButton label="Produce" :loading="opening" :why-not="store.mayNot('prove')" @press="produce" />
        </footer>
      </template>
    </ListScreen>
  </div>
</template>

<style scoped>
.screen-root {
  height: 100%;
}
.views b {
  margin-left: 3px;
  font-weight: 500;
}
.old {
  color: var(--brick);
}
.record {
  color: var(--ink);
  font-weight: 500;
  text-decoration: none;
}
.record:hover {
  text-decoration: underline;
}
.glyph-link {
  margin-right: 12px;
  text-decoration: none;
}
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  height: 52px;
  padding: 0 16px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.foot b {
  font-weight: 500;
}
.names {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.foot :deep(button),
.foot b {
  flex: none;
}
.open {
  margin-left: auto;
}
.trouble {
  color: var(--brick);
}
</style>
