<script setup lang="ts">
import { dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import { SAMPLE_ID } from '#core/template/sample-record';
import { paperOf, PER_MILLIMETRE } from '~/editor/paper';

/** A template on its sheet: written in the middle, what can be brought in at the left, what is chosen at the right. */
const route = useRoute();
const { barred, mayPublish, recordType, shownName, chooseRecord } = useDraftScreen();
const draft = useDraftStore();
const figures = useFiguresStore();
const sheet = useSheetStore();
const publishOpen = ref(false);
const conflictOpen = ref(false);
const versionsOpen = ref(false);
const sampleOpen = ref(false);
const trial = useDraftTrial();

type Drawer = 'outline' | 'record' | 'what-if';
const drawer = ref<Drawer>('record');
const DRAWERS: readonly { leaf: Drawer; word: string }[] = [
  { leaf: 'outline', word: 'Outline' },
  { leaf: 'record', word: 'Record' },
  { leaf: 'what-if', word: 'What if' },
];

/** From here on sheet and proof stand side by side. */
const isWide = useMediaQuery('(min-width: 1500px)');
const showsProof = ref(route.query.proof !== undefined && !barred.value);
const showsSheet = computed(() => !showsProof.value || isWide.value);
const mayProof = computed(() => !barred.value && !!figures.shown);
function swap(): void {
  if (mayProof.value) showsProof.value = !showsProof.value;
}
/** From something on a page to its place on the sheet. */
function backToSheet(): void {
  if (!isWide.value) showsProof.value = false;
}

const templateId = computed(() => String(route.params.id));
watch(templateId, load, { immediate: true });
async function load(): Promise<void> {
  sheet.close();
  const isOpen = figures.load(templateId.value, route.query.record as string | undefined, !barred.value, true);
  // The sheet can be written on from here on, while a record is being read for it.
  await until(() => draft.template?.id === templateId.value || figures.problem).toBeTruthy();
  if (draft.template) sheet.open(!barred.value, `Sheet of ${draft.template.name}`);
  if (typeof route.query.block === 'string') sheet.choose(route.query.block);
  await isOpen;
}
onBeforeUnmount(sheet.close);

useSheetCommands();

/** `[` and `]` go to the record before and after, by name. */
const beside = useLoaded(async () => {
  if (!recordType.value) return [];
  const query = { sort: 'name', top: 100 } as const;
  const { records } = await api('GET /records/{type}', { parameters: { type: recordType.value }, query });
  return records.map(({ id }) => id);
});
async function goBeside(step: -1 | 1): Promise<void> {
  if (!beside.value.value) await beside.reload();
  const all = beside.value.value ?? [];
  const at = all.indexOf(figures.shown?.record.id ?? '');
  const next = all[(at + step + all.length) % Math.max(1, all.length)];
  if (next !== undefined) await chooseRecord(next);
}

const desk = useTemplateRef<HTMLElement>('desk');
const { width: room } = useElementSize(desk);
/** Paper is as wide as the desk allows, with room for the notes in the margin; a person may choose otherwise. */
const chosenZoom = ref<number>();
/** Pixels for the notes beside it. */
const BESIDE = 140;
const zoom = computed(() => {
  const page = draft.template?.layout.page;
  const paper = page ? paperOf(page).width * PER_MILLIMETRE : room.value;
  return chosenZoom.value ?? Math.min(1.25, Math.max(0.4, (room.value - BESIDE) / paper));
});
const zoomBy = (step: number) =>
  (chosenZoom.value = Math.min(2, Math.max(0.4, Math.round((zoom.value + step) * 10) / 10)));

/** Where what is being dragged would go. */
const caret = shallowRef<{ left: string; top: string; height: string }>();
const placeAt = (x: number, y: number) => sheet.editor?.view.posAtCoords({ left: x, top: y })?.pos;
watchEffect((stop) => {
  if (!desk.value) return;
  const element = desk.value;
  const follow = (x: number, y: number) => {
    const place = placeAt(x, y);
    if (place === undefined) return void (caret.value = undefined);
    const at = sheet.editor!.view.coordsAtPos(place);
    const around = element.getBoundingClientRect();
    caret.value = {
      left: `${at.left - around.left + element.scrollLeft}px`,
      top: `${at.top - around.top + element.scrollTop}px`,
      height: `${at.bottom - at.top}px`,
    };
  };
  stop(
    dropTargetForElements({
      element,
      canDrop: ({ source }) => ('formula' in source.data || 'blocks' in source.data) && !barred.value,
      onDrag: ({ source, location }) =>
        'formula' in source.data && follow(location.current.input.clientX, location.current.input.clientY),
      onDragLeave: () => (caret.value = undefined),
      onDrop: ({ source, location }) => {
        caret.value = undefined;
        if (!('formula' in source.data)) return;
        const place = placeAt(location.current.input.clientX, location.current.input.clientY);
        if (place === undefined) return;
        sheet.editor!.commands.setTextSelection(place);
        sheet.insertField(source.data as { formula: string; label: string; type?: string });
      },
    }),
  );
});

useKeys({
  'Control+f': () => (sheet.finding = true),
  '[': () => void goBeside(-1),
  ']': () => void goBeside(1),
  'Control+.': swap,
  'Control+Enter': () => (publishOpen.value = mayPublish.value),
});
</script>

<template>
  <div class="editor">
    <WhereAmI
      :title="draft.template?.name ?? 'Template'"
      :here="draft.template?.name ?? ''"
      :way="[{ label: 'Templates', to: '/templates' }]"
    />
    <ProblemNote
      v-if="figures.problem && !draft.template"
      :problem="figures.problem"
      :way="{ label: 'All templates', to: '/templates' }"
      @again="load"
    />
    <template v-else>
      <div class="strip">
        <span class="quiet">Shown for</span>
        <RecordPicker
          v-if="recordType"
          :type="recordType"
          :name="shownName"
          label="Record to show values for"
          @choose="chooseRecord"
        />
        <button
          v-tooltip.bottom="'Previous record ([)'"
          type="button"
          class="in-words"
          aria-label="Previous record"
          @click="goBeside(-1)"
        >
          [
        </button>
        <button
          v-tooltip.bottom="'Next record (])'"
          type="button"
          class="in-words"
          aria-label="Next record"
          @click="goBeside(1)"
        >
          ]
        </button>
        <button v-if="!barred" type="button" class="in-words" @click="sampleOpen = true">Sample…</button>
        <template v-if="!barred">
          <InsertMenu />
          <LookBar />
        </template>
        <button
          v-tooltip.bottom="'Ctrl .'"
          type="button"
          class="in-words proof"
          :aria-pressed="showsProof"
          :disabled="!mayProof"
          @click="swap"
        >
          {{ showsProof && !isWide ? 'Sheet' : 'Proof' }}
        </button>
        <span v-if="figures.tried.length > 0" class="tried">
          {{ figures.tried.length === 1 ? 'One value is tried' : `${figures.tried.length} values are tried` }}
        </span>
        <span class="spring"></span>
        <button
          v-tooltip.bottom="draft.past.at(-1)?.words"
          type="button"
          class="in-words"
          :disabled="draft.past.length === 0"
          @click="sheet.undo"
        >
          Undo
        </button>
        <button
          v-tooltip.bottom="draft.future.at(-1)?.words"
          type="button"
          class="in-words"
          :disabled="draft.future.length === 0"
          @click="sheet.redo"
        >
          Redo
        </button>
        <button type="button" class="in-words" @click="versionsOpen = true">Versions</button>
        <button
          v-if="!barred"
          type="button"
          class="in-words"
          :disabled="!figures.shown || trial.busy.value"
          @click="trial.openTrial"
        >
          {{ trial.busy.value ? 'Setting…' : 'Trial PDF' }}
        </button>
        <NuxtLink class="in-words" :to="`/templates/${templateId}/plans`">Filing</NuxtLink>
        <NuxtLink v-if="!barred" class="in-words" :to="`/templates/${templateId}/prove`">Prove on ten</NuxtLink>
        <DraftState @conflict="conflictOpen = true" @discard="draft.throwAway()" />
        <PermittedButton
          label="Publish"
          size="small"
          :disabled="!barred && !mayPublish"
          :why-not="barred"
          @press="publishOpen = true"
        />
      </div>
      <FindReplace v-model:open="sheet.finding" />
      <LazyMissingFields v-if="!barred && figures.missing.length > 0" />
      <div class="work" :class="{ both: showsProof && isWide }">
        <aside class="left" aria-label="What can be brought in">
          <LeafTabs v-model="drawer" :leaves="DRAWERS">
            <RecordDrawer v-if="drawer === 'record'" />
            <LazyWhatIfDrawer v-else-if="drawer === 'what-if'" />
            <OutlineDrawer v-else />
          </LeafTabs>
        </aside>
        <section v-show="showsSheet" ref="desk" class="desk" aria-label="Sheet" tabindex="-1">
          <SheetDesk v-if="draft.template && sheet.editor" :zoom="zoom" />
          <div v-else class="waiting on-paper"><Skeleton v-for="at in 9" :key="at" height="16px" /></div>
          <span v-if="caret" class="caret" :style="caret"></span>
          <div class="zoom" role="group" aria-label="Size of the sheet">
            <button type="button" aria-label="Smaller" @click="zoomBy(-0.1)">−</button>
            <button type="button" @click="chosenZoom = undefined">
              {{ chosenZoom ? `${Math.round(zoom * 100)} %` : 'Fit' }}
            </button>
            <button type="button" aria-label="Larger" @click="zoomBy(0.1)">+</button>
          </div>
        </section>
        <LazyDraftProofDesk v-if="showsProof" @sheet="backToSheet" />
        <aside class="right"><PropertyPanel /></aside>
      </div>
      <p v-if="figures.problem" class="problem" role="alert">
        <strong>{{ figures.problem.title }}.</strong> {{ figures.problem.detail }}
      </p>
      <p v-if="trial.problem.value" class="problem" role="alert">
        <strong>{{ trial.problem.value.title }}.</strong> {{ trial.problem.value.detail }}
        <button type="button" class="in-words" @click="trial.problem.value = undefined">Close</button>
      </p>
      <p v-if="sheet.notice" class="problem" role="alert">
        {{ sheet.notice }} <button type="button" class="in-words" @click="sheet.notice = ''">Close</button>
      </p>
      <FigureStrip :template-id="templateId" />
      <p class="visually-hidden" role="status">{{ draft.announcement }}</p>
    </template>
    <TemplateVersions v-model:open="versionsOpen" :template-id="templateId" />
    <LazySampleRecord v-if="sampleOpen" v-model:open="sampleOpen" @use="chooseRecord(SAMPLE_ID)" />
    <PublishDraft v-model:open="publishOpen" />
    <DraftConflict v-model:open="conflictOpen" />
  </div>
</template>

<style scoped>
.editor {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.strip {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 11px;
  padding: 6px 14px 6px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.tried {
  padding: 1px 8px;
  background: var(--brass-50);
  border: 1px dashed var(--brass);
  font-size: 12px;
}
.spring {
  flex: 1;
}
.work {
  display: grid;
  flex: 1;
  grid-template-columns: 232px minmax(0, 1fr) 272px;
  min-height: 0;
}
.work.both {
  grid-template-columns: 232px minmax(0, 1fr) minmax(0, 1fr) 272px;
}
.left,
.right {
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
  background: var(--sheet);
  border-right: 1px solid var(--hairline);
}
.right {
  border-right: 0;
  border-left: 1px solid var(--hairline);
}
.desk {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
}
.waiting {
  display: grid;
  align-content: start;
  gap: 16px;
  width: 560px;
  height: 90%;
  margin: 16px auto;
  padding: 48px;
  box-shadow: var(--sheet-shadow);
}
.caret {
  position: absolute;
  width: 2px;
  background: var(--verdigris);
  pointer-events: none;
}
.desk > :not(.caret) {
  flex: none;
}
.zoom {
  position: sticky;
  bottom: 10px;
  margin-top: auto;
  left: calc(100% - 110px);
  display: flex;
  width: max-content;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
.zoom button {
  min-width: 28px;
  height: 26px;
  padding: 0 7px;
  background: none;
  border: 0;
  color: var(--ink);
  cursor: pointer;
}
.problem {
  padding: 6px 16px;
  background: var(--brick-50);
  color: var(--brick);
}
/* On a narrow screen what is chosen and what can be brought in lie below the sheet. */
@media screen and (max-width: 1000px) {
  .work {
    grid-template: minmax(0, 3fr) minmax(0, 2fr) / 1fr 1fr;
  }
  .desk {
    grid-row: 1;
    grid-column: 1 / -1;
  }
}
</style>
