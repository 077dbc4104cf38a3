<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import { searchFor } from '~~/core/words/search';
import { useMeStore } from '~/stores/me';
import type { Menu } from 'primevue';
import type { MenuItem } from 'primevue/menuitem';
import type { Answer, ApiProblem } from '~/composables/api';

const loaded = useLoaded(() => api('GET /templates'));
void loaded.reload();
const store = useMeStore();
const barred = computed(() => store.mayNot('publish'));
/** What is worked on, for those who may. */
const drafts = useLoaded(async () => (store.mayNot('publish') ? [] : await api('GET /drafts')));
void drafts.reload();
const words = ref('');
const kind = ref<string>();
const draftOf = (id: string) => drafts.value.value?.find((each) => each.id === id);
const unpublished = computed(() => (drafts.value.value ?? []).filter(({ isPublished }) => !isPublished));
const kinds = computed(() => [
  ...new Set([...(loaded.value.value ?? []), ...unpublished.value].map((each) => each.kind)),
]);
const found = computed(() => {
  const isFound = searchFor(words.value);
  return <Each extends { name: string; kind: string }>(all: readonly Each[]) =>
    all.filter((each) => (!kind.value || each.kind === kind.value) && isFound([each.name, each.kind]));
});
const archived = computed(() => (loaded.value.value ?? []).filter(({ archivedAt }) => archivedAt !== null));
const showsArchived = ref(false);
const shown = computed(() =>
  found.value((loaded.value.value ?? []).filter(({ archivedAt }) => showsArchived.value || archivedAt === null)),
);
const shownDrafts = computed(() => found.value(unpublished.value));

const upload = useTemplateRef<{ choose: () => void; clear: () => void }>('upload');
const page = useTemplateRef<HTMLElement>('page');
const busy = ref(false);
const announcement = ref('');
const refused = shallowRef<ApiProblem>();
/** A file that waits for a decision: what it would replace, or why it is published although some records stop on it. */
const waiting = shallowRef<{ file: File; as?: 'replacement' | 'new'; problem: ApiProblem }>();
const waitingFor = (reason: string) => (waiting.value?.problem.reason === reason ? waiting.value.problem : undefined);
const { isOverDropZone } = useDropZone(page, { onDrop: (files) => void putIn(files?.[0]), multiple: false });
const beginning = ref(false);
useKeys({ 'Control+Enter': () => (beginning.value = !barred.value) });

/** Puts a template in from its file; `reason` says why, where some records stop on it. */
async function putIn(file: File | null | undefined, as?: 'replacement' | 'new', reason?: string): Promise<void> {
  if (!file || busy.value || store.mayNot('publish')) return;
  busy.value = true;
  announcement.value = '';
  undoable.value = undefined;
  refused.value = undefined;
  try {
    const { name, version, outcome } = await api('POST /templates', { query: { as, reason }, body: file });
    waiting.value = undefined;
    announcement.value = {
      added: `“${name}” is on the shelf now.`,
      replaced: `“${name}” is at version ${version} now.`,
      unchanged: `“${name}” is the same as version ${version}. Nothing was changed.`,
    }[outcome];
    if (outcome !== 'unchanged') await reload();
  } catch (thrown) {
    const problem = asProblem(thrown);
    const decides = problem.reason === 'stops' || problem.reason === 'replaces';
    waiting.value = decides ? { file, as, problem } : undefined;
    refused.value = decides ? undefined : problem;
  } finally {
    busy.value = false;
    upload.value?.clear();
  }
}

/** The template or draft whose menu is open. */
const chosen = shallowRef<{ id: string; name: string; published?: Answer<'GET /templates'>[number] }>();
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu');
const reload = () => Promise.all([loaded.reload(), drafts.reload()]);
const act = useAct(reload);
/** What was just done, with the way to undo it. */
const undoable = shallowRef<{ words: string; undo: () => Promise<unknown> }>();
const renaming = shallowRef<{ id: string; name: string; isPublished: boolean }>();
const actions = computed<MenuItem[]>(() => {
  const each = chosen.value;
  if (!each) return [];
  const { id, name, published } = each;
  const exported = {
    label: 'Export',
    url: addressOf('GET /templates/{id}/file', { parameters: { id } }),
  };
  const duplicated = { label: 'Duplicate', disabled: !!barred.value, command: () => void duplicate(id) };
  const rename = {
    label: 'Rename',
    disabled: !!barred.value,
    command: () => (renaming.value = { id, name, isPublished: published !== undefined }),
  };
  if (!published) return [rename, duplicated, { label: 'Delete', command: () => void discard(id, name) }];
  const isArchived = published.archivedAt !== null;
  const archive = {
    label: isArchived ? 'Bring back' : 'Archive',
    disabled: !!barred.value,
    command: () => void setArchived(id, name, !isArchived),
  };
  return [exported, rename, duplicated, archive];
});

function openMenu(event: Event, of: NonNullable<typeof chosen.value>): void {
  chosen.value = of;
  menu.value?.toggle(event);
}

async function renamed(words: string): Promise<void> {
  [renaming.value, undoable.value, announcement.value] = [undefined, undefined, words];
  await reload();
}

async function duplicate(id: string): Promise<void> {
  await act(async () => {
    const { template } = await api('GET /templates/{id}/draft', { parameters: { id } });
    await api('POST /drafts', { body: { template } });
  }, 'Duplicated. The copy is a draft.');
}

async function setArchived(id: string, name: string, isArchived: boolean): Promise<void> {
  const put = (value: boolean) =>
    api('PUT /templates/{id}/archived', { parameters: { id }, body: { archived: value } });
  await attempted(isArchived ? `“${name}” is archived.` : `“${name}” is back on the shelf.`, async () => {
    await put(isArchived);
    return () => put(!isArchived);
  });
}

/** Deletes a draft that was never published. */
async function discard(id: string, name: string): Promise<void> {
  await attempted(`“${name}” is deleted.`, async () => {
    const { template, revision } = await api('GET /templates/{id}/draft', { parameters: { id } });
    await api('DELETE /templates/{id}/draft', { parameters: { id }, query: { revision } });
    return () => api('POST /drafts', { body: { template } });
  });
}

/** Does something that can be undone, and shows the shelf as it is then. */
async function attempted(words: string, doing: () => Promise<() => Promise<unknown>>): Promise<void> {
  refused.value = undefined;
  announcement.value = '';
  try {
    undoable.value = { words, undo: await doing() };
  } catch (thrown) {
    undoable.value = undefined;
    refused.value = asProblem(thrown);
  }
  await reload();
}

async function undo(): Promise<void> {
  const last = undoable.value;
  undoable.value = undefined;
  if (last) await act(last.undo, `Undone: ${last.words}`);
}

const thumbnail = ({ id, versionId }: Answer<'GET /templates'>[number]) =>
  addressOf('GET /templates/{id}/thumbnail', { parameters: { id }, query: { version: versionId } });

const use = (documents: number, lastUsed: string | null) =>
  documents === 0
    ? 'not used yet'
    : `${documents === 1 ? 'one document' : `${documents} documents`}, last ${momentText(lastUsed!)}`;

await soon(loaded.first);
</script>

<template>
  <div ref="page" class="templates" :class="{ over: isOverDropZone }">
    <WhereAmI title="Templates" />
    <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
    <template v-else>
      <div class="bar">
        <SearchField :value="words" label="Search templates" @search="words = $event" />
        <ChoiceFilter label="Kind" :value="kind ?? ''" :options="kinds" @choose="kind = $event" />
        <Button
          v-if="archived.length > 0"
          :label="showsArchived ? 'Hide archived' : `Show archived (${archived.length})`"
          severity="secondary"
          text
          size="small"
          @click="showsArchived = !showsArchived"
        />
        <span class="announcement" role="status"
          >{{ undoable?.words ?? announcement }}
          <button v-if="undoable" type="button" class="in-words" @click="undo">Undo</button></span
        >
        <FileUpload
          v-if="!barred"
          ref="upload"
          mode="basic"
          auto
          custom-upload
          accept=".json,.zip,application/json"
          choose-label="Import template"
          :choose-button-props="{ size: 'small', severity: 'secondary', outlined: true, loading: busy }"
          @uploader="putIn([$event.files].flat()[0])"
          ><template #filelabel> </template
        ></FileUpload>
        <PermittedButton label="New template" size="small" :why-not="barred" @press="beginning = true" />
      </div>
      <RefusedTemplate v-if="refused" :problem="refused" @close="refused = undefined" />
      <ReplaceTemplate
        :problem="waitingFor('replaces')"
        :busy="busy"
        @decide="putIn(waiting?.file, $event)"
        @close="waiting = undefined"
      />
      <StoppedRecords
        :problem="waitingFor('stops')"
        :busy="busy"
        @publish="putIn(waiting?.file, waiting?.as, $event)"
        @close="waiting = undefined"
      />
      <EmptyNote v-if="loaded.value.value?.length === 0" title="No templates yet"
        >Begin one with “New template”, or drop a template’s file here.</EmptyNote
      >
      <EmptyNote v-else-if="loaded.value.value && shown.length + shownDrafts.length === 0" title="No matching templates"
        >Search for less, or choose another kind.</EmptyNote
      >
      <ul v-else class="shelf">
        <template v-if="!loaded.value.value"
          ><li v-for="n in 8" :key="n"><Skeleton width="168px" height="238px" border-radius="0" /></li
        ></template>
        <li v-for="{ id, name, kind: its, editedBy, editedAt } in shownDrafts" :key="id">
          <NuxtLink :to="`/templates/${id}`">
            <span class="place"><span class="sheet blank"></span></span>
            <strong>{{ name }}</strong>
          </NuxtLink>
          <span class="quiet">{{ its }}, not published yet</span>
          <span class="draft">Draft by {{ editedBy }}, {{ momentText(editedAt) }}</span>
          <button type="button" class="more in-words" aria-haspopup="menu" @click="openMenu($event, { id, name })">
            More<span class="visually-hidden"> for {{ name }}</span>
          </button>
        </li>
        <li v-for="template in shown" :key="template.id" :class="{ archived: template.archivedAt }">
          <NuxtLink :to="`/templates/${template.id}`">
            <span class="place"
              ><img :src="thumbnail(template)" :alt="`First page of ${template.name}`" class="sheet" loading="lazy"
            /></span>
            <strong>{{ template.name }}</strong>
          </NuxtLink>
          <span class="quiet">{{ template.kind }}, version {{ template.version }}</span>
          <span v-if="template.editions > 1" class="quiet">{{ template.editions }} editions</span>
          <span class="quiet">{{ use(template.documents, template.lastUsed) }}</span>
          <span v-if="draftOf(template.id)" class="draft"
            >Draft by {{ draftOf(template.id)!.editedBy }}, {{ momentText(draftOf(template.id)!.editedAt) }}</span
          >
          <NuxtLink v-if="template.fieldsGone.length > 0" class="gone" :to="`/templates/${template.id}`">
            {{
              template.fieldsGone.length === 1 ? 'A field is gone' : `${template.fieldsGone.length} fields are gone`
            }}:
            {{ template.fieldsGone.join(', ') }}
          </NuxtLink>
          <span v-if="template.archivedAt" class="quiet">archived {{ momentText(template.archivedAt) }}</span>
          <button
            type="button"
            class="more in-words"
            aria-haspopup="menu"
            @click="openMenu($event, { id: template.id, name: template.name, published: template })"
          >
            More<span class="visually-hidden"> for {{ template.name }}</span>
          </button>
        </li>
      </ul>
      <NewTemplate v-model:open="beginning" :templates="loaded.value.value ?? []" @file="upload?.choose()" />
      <Menu ref="menu" :model="actions" popup />
      <RenameTemplate :template="renaming" @renamed="renamed" @close="renaming = undefined" />
    </template>
  </div>
</template>

<style scoped>
.templates {
  height: 100%;
  padding: 12px 20px 20px;
  overflow: auto;
}
.over {
  outline: 2px dashed var(--verdigris);
  outline-offset: -10px;
}
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 16px;
}
.announcement {
  flex: 1;
  color: var(--ink-quiet);
  text-align: end;
}
.shelf {
  display: flex;
  flex-wrap: wrap;
  gap: 26px 28px;
}
.shelf li {
  display: grid;
  align-content: start;
  gap: 1px;
  width: 184px;
  font-size: 12px;
}
.shelf li > a:first-child {
  display: grid;
  gap: 8px;
  color: var(--ink);
  font-size: 13px;
  text-decoration: none;
}
.place {
  display: flex;
  align-items: flex-end;
  height: 238px;
}
.sheet {
  min-width: 120px;
  max-width: 184px;
  max-height: 238px;
  background: var(--sheet);
  box-shadow: var(--sheet-shadow);
}
.blank {
  width: 168px;
  height: 238px;
}
.draft {
  color: var(--brass-text);
}
.archived .sheet {
  opacity: 0.5;
}
.more {
  justify-self: start;
}
li > a:hover strong {
  text-decoration: underline;
}
.gone {
  color: var(--brick);
}
</style>
