<script setup lang="ts">
import type { Finding } from '#core/production/findings/finding';
import { VALUE } from '#core/production/page-contents';
import { glyphsOf } from '#core/production/page-drawing';
import type { ShownProof } from '~/composables/proof-drawings';

/**
 * The true pages on the desk, of which those near the view are drawn. Values on them can be pressed: they are one stop of the Tab
 * key, with arrows from one to the next.
 */
const { proof, findings, marked } = defineProps<{
  proof: ShownProof;
  findings: readonly Finding[];
  /** Ids of values that are marked, since they differ from others. */
  marked?: ReadonlySet<string>;
  /** Pages that are not drawn yet could not be sent for. */
  failed: boolean;
}>();
const emit = defineEmits<{ value: [id: string]; finding: [finding: Finding]; near: [pages: readonly number[]] }>();

defineOptions({ inheritAttrs: false });
const desk = useTemplateRef<HTMLElement>('desk');
const { width: deskWidth } = useElementSize(desk);
const NARROW = 700;
const MARK_ROOM = 44;
const noteRoom = computed(() => (deskWidth.value > 0 && deskWidth.value <= NARROW ? 12 : 150));

const zoom = useKept<number>('proof.zoom', 1);
const ZOOM = { step: 1.2, least: 0.5, most: 3 };
const magnify = (by: number) => (zoom.value = Math.min(ZOOM.most, Math.max(ZOOM.least, zoom.value * by)));

/** Pixels for one point: the sheet fills the desk between its margins, within reason; a person may have it larger or smaller. */
const scale = computed(() => {
  const room = Math.max(360, deskWidth.value - noteRoom.value - MARK_ROOM - 24);
  return Math.min(room / proof.pages.pageSize.width, 1.35) * zoom.value;
});
const pages = computed(() => proof.pages.pages);
const definitions = computed(() => proof.pages.glyphs);
const glyphs = computed(() => glyphsOf(definitions.value));

/** Index of the first page that a value is on. */
const pageOf = (value: string) => pages.value.findIndex(({ values }) => values.includes(value));

/** Each finding's mark stands beside the first of its values that is on a page. */
const marks = computed(() => {
  const all = findings.flatMap((finding, at) => {
    for (const value of finding.values) {
      const page = pageOf(value);
      if (page >= 0) return { finding, number: at + 1, value, page };
    }
    return [];
  });
  return pages.value.map((_, at) => all.filter(({ page }) => page === at));
});

/** Numbers of the pages that are drawn. */
const near = ref<ReadonlySet<number>>(new Set([1]));
const watching = shallowRef<IntersectionObserver>();
// The first page is there before others are drawn.
useTimeoutFn(() => {
  watching.value = new IntersectionObserver(
    (entries) => {
      const now = new Set(near.value);
      for (const { target, isIntersecting } of entries) now[isIntersecting ? 'add' : 'delete'](numberOf(target));
      near.value = now;
    },
    { root: desk.value, rootMargin: '60% 0px' },
  );
}, 150);
onBeforeUnmount(() => watching.value?.disconnect());
watch(
  [() => pages.value.length, watching],
  () => {
    watching.value?.disconnect();
    for (const sheet of desk.value?.querySelectorAll('.sheet') ?? []) watching.value?.observe(sheet);
  },
  { flush: 'post' },
);
const numberOf = (sheet: Element) => Number((sheet as HTMLElement).dataset.page);
/** Whoever prints the screen prints the whole document. */
const isPrinted = ref(false);
useEventListener(window, 'beforeprint', () => (isPrinted.value = true));
useEventListener(window, 'afterprint', () => (isPrinted.value = false));
const isDrawn = (page: number) => isPrinted.value || near.value.has(page);
watch([near, isPrinted], () => emit('near', pages.value.map((_, at) => at + 1).filter(isDrawn)));

/** On paper the sheets are all there is, each a page of the document's own size. */
const printed = computed(() => {
  const { width, height } = proof.pages.pageSize;
  return `@media print { @page { size: ${width}pt ${height}pt; margin: 0; } .sheet { width: ${width}pt !important; height: ${height}pt !important; } }`;
});

const linksOf = () => [...(desk.value?.querySelectorAll<SVGAElement>('a[role="button"]') ?? [])];
const idOf = (link: Element | null) => {
  const href = link?.getAttribute('href') ?? '';
  return href.startsWith(VALUE) ? href.slice(VALUE.length) : undefined;
};
/** The link that the Tab key leads to. */
const stop = shallowRef<SVGAElement>();
function stopAt(link: SVGAElement | undefined): void {
  stop.value?.setAttribute('tabindex', '-1');
  link?.setAttribute('tabindex', '0');
  stop.value = link;
}
/** A page that is drawn anew has other links, or the same ones without their place in the order of the Tab key. */
async function keepStop(): Promise<void> {
  await nextTick();
  stopAt(stop.value?.isConnected ? stop.value : linksOf()[0]);
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };
function press(event: KeyboardEvent): void {
  const link = (event.target as Element).closest<SVGAElement>('a[role="button"]');
  if (!link || event.ctrlKey || event.metaKey || event.altKey) return;
  const links = linksOf();
  const step = STEPS[event.key];
  if (step !== undefined) {
    const next = links[links.indexOf(link) + step];
    event.preventDefault();
    if (!next) return;
    stopAt(next);
    next.focus();
  } else if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    emit('value', idOf(link)!);
  }
}

function click(event: MouseEvent): void {
  const link = (event.target as Element).closest<SVGAElement>('a');
  const id = idOf(link);
  if (id === undefined) return;
  event.preventDefault();
  stopAt(link!);
  emit('value', id);
}

/** Brings a value into view and lights it for a moment. */
async function showValue(id: string): Promise<void> {
  const page = pageOf(id);
  if (page < 0) return;
  near.value = new Set([...near.value, page + 1]);
  await nextTick();
  const link = linksOf().find((each) => idOf(each) === id);
  if (!link) return;
  link.scrollIntoView({ block: 'center', behavior: 'instant' });
  link.classList.add('lit');
  setTimeout(() => link.classList.remove('lit'), 1_600);
}
defineExpose({ showValue });
</script>

<template>
  <!-- eslint-disable vue/no-v-html -- the typesetter's own SVG definitions of glyphs -->
  <div ref="desk" class="desk" v-bind="$attrs" @click="click" @keydown="press">
    <component :is="'style'">{{ printed }}</component>
    <svg class="glyphs" aria-hidden="true" v-html="glyphs.others" />
    <ProofPage
      v-for="(page, index) in pages"
      :key="index"
      :page="page"
      :outlines="glyphs.outlines"
      :failed="failed"
      :number="index + 1"
      :count="pages.length"
      :proof="proof"
      :scale="scale"
      :findings="marks[index]!"
      :marked="marked"
      :is-near="isDrawn(index + 1)"
      @finding="emit('finding', $event)"
      @drawn="keepStop"
    />
  </div>
  <div class="zoom" role="group" aria-label="Zoom">
    <button type="button" aria-label="Smaller" :disabled="zoom <= ZOOM.least" @click="magnify(1 / ZOOM.step)">−</button>
    <button type="button" :disabled="zoom === 1" @click="zoom = 1">Fit</button>
    <button type="button" aria-label="Larger" :disabled="zoom >= ZOOM.most" @click="magnify(ZOOM.step)">+</button>
  </div>
</template>

<style scoped>
.desk {
  height: 100%;
  padding: 20px 0 40px;
  overflow: auto;
  container: desk / inline-size;
}
.zoom {
  position: absolute;
  bottom: 12px;
  left: 14px;
  display: flex;
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
  cursor: pointer;
}
.zoom button:disabled {
  color: var(--ink-off);
  cursor: default;
}
.glyphs {
  position: absolute;
  width: 0;
  height: 0;
}
</style>
