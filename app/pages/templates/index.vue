<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import { searchFor } from '~~/core/words/search';
import { useMeStore } from '~/stores/me';
import type { Answer, ApiProblem } from '~/composables/api';

const loaded = useLoaded(() => api('GET /templates'));
void loaded.reload();
const words = ref('');
const kind = ref<string>();
const kinds = computed(() => [...new Set((loaded.value.value ?? []).map((each) => each.kind))]);
const shown = computed(() => {
  const isFound = searchFor(words.value);
  return (loaded.value.value ?? []).filter(
    (each) => (!kind.value || each.kind === kind.value) && isFound([each.name, each.kind]),
  );
});

const store = useMeStore();
const upload = useTemplateRef<{ choose: () => void; clear: () => void }>('upload');
const page = useTemplateRef<HTMLElement>('page');
const busy = ref(false);
const announcement = ref('');
const refused = shallowRef<ApiProblem>();
/** A file that waits for a decision: what it would replace, or why it is published although some records stop on it. */
const waiting = shallowRef<{ file: File; as?: 'replacement' | 'new'; problem: ApiProblem }>();
const waitingFor = (reason: string) => (waiting.value?.problem.reason === reason ? waiting.value.problem : undefined);
const { isOverDropZone } = useDropZone(page, { onDrop: (files) => void putIn(files?.[0]), multiple: false });
useKeys({ 'Control+Enter': () => upload.value?.choose() });

/** Puts a template in from its file; `reason` says why, where some records stop on it. */
async function putIn(file: File | null | undefined, as?: 'replacement' | 'new', reason?: string): Promise<void> {
  if (!file || busy.value || store.mayNot('publish')) return;
  busy.value = true;
  announcement.value = '';
  refused.value = undefined;
  try {
    const { name, version, outcome } = await api('POST /templates', { query: { as, reason }, body: file });
    waiting.value = undefined;
    announcement.value = {
      added: `“${name}” is on the shelf now.`,
      replaced: `“${name}” is at version ${version} now.`,
      unchanged: `“${name}” is the same as version ${version}. Nothing was changed.`,
    }[outcome];
    if (outcome !== 'unchanged') await loaded.reload();
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
        <span class="announcement" role="status">{{ announcement }}</span>
        <PermittedButton
          v-if="store.mayNot('publish')"
          label="Import template"
          size="small"
          :why-not="store.mayNot('publish')"
        />
        <FileUpload
          v-else
          ref="upload"
          mode="basic"
          auto
          custom-upload
          accept=".json,.zip,application/json"
          choose-label="Import template"
          :choose-button-props="{ size: 'small', loading: busy }"
          @uploader="putIn([$event.files].flat()[0])"
          ><template #filelabel> </template
        ></FileUpload>
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
        >Import one from its file: press the button, or drop the file here.</EmptyNote
      >
      <EmptyNote v-else-if="loaded.value.value && shown.length === 0" title="No matching templates"
        >Search for less, or choose another kind.</EmptyNote
      >
      <ul v-else class="shelf">
        <template v-if="!loaded.value.value"
          ><li v-for="n in 8" :key="n"><Skeleton width="168px" height="238px" border-radius="0" /></li
        ></template>
        <li v-for="template in shown" :key="template.id">
          <NuxtLink :to="`/templates/${template.id}/figures`">
            <span class="place"
              ><img :src="thumbnail(template)" :alt="`First page of ${template.name}`" class="sheet" loading="lazy"
            /></span>
            <strong>{{ template.name }}</strong>
          </NuxtLink>
          <span class="quiet">{{ template.kind }}, version {{ template.version }}</span>
          <span v-if="template.editions > 1" class="quiet">{{ template.editions }} editions</span>
          <span class="quiet">{{ use(template.documents, template.lastUsed) }}</span>
          <a :href="addressOf('GET /templates/{id}/file', { parameters: { id: template.id } })" download>Export</a>
        </li>
      </ul>
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
li > a:hover strong {
  text-decoration: underline;
}
</style>
