<script setup lang="ts">
import type { Finding } from '#core/production/findings/finding';
import type { Proof } from '~/stores/proof';

/**
 * The true pages on the desk. Values on them can be clicked; sections carry their reason in the left margin, findings
 * their number in the right one.
 */
const { proof, findings } = defineProps<{ proof: Proof; findings: readonly Finding[] }>();
const emit = defineEmits<{ value: [id: string]; finding: [finding: Finding] }>();

interface Mark {
  finding: Finding;
  number: number;
  page: number;
  top: number;
}
interface Note {
  words: string;
  page: number;
  top: number;
  height: number;
}

const desk = useTemplateRef<HTMLElement>('desk');
const marks = ref<Mark[]>([]);
const notes = ref<Note[]>([]);
const { width: deskWidth } = useElementSize(desk);
const SCHEME = 'lumbix:';
const SECTION = 'lumbix-section:';
const NOTE_ROOM = 150;
const MARK_ROOM = 44;

/** Pixels for one point: the sheet fills the desk between its margins, within reason. */
const scale = computed(() => {
  const room = Math.max(360, deskWidth.value - NOTE_ROOM - MARK_ROOM - 24);
  return Math.min(room / proof.pages.pageSize.width, 1.35);
});
const sheet = computed(() => ({
  width: `${proof.pages.pageSize.width * scale.value}px`,
  height: `${proof.pages.pageSize.height * scale.value}px`,
}));

/** Puts the reason of each section beside it, on every page that the section is on. */
function placeNotes(): void {
  const edges = [...(desk.value?.querySelectorAll<SVGAElement>(`a[href^="${SECTION}"]`) ?? [])].map((element) => {
    const [, edge, id] = element.getAttribute('href')!.split(':') as [string, 'start' | 'end', string];
    return { edge, id, ...placeOf(element) };
  });
  const { height } = proof.pages.pageSize;
  notes.value = edges
    .filter(({ edge }) => edge === 'start')
    .flatMap(({ id, page, top }) => {
      const end = edges.find((each) => each.id === id && each.edge === 'end');
      const words = proof.sections[id];
      if (!end || !words) return [];
      return Array.from({ length: end.page - page + 1 }, (_, index): Note => {
        const from = index === 0 ? top : 60 * scale.value;
        const to = page + index === end.page ? end.top : (height - 70) * scale.value;
        return { words, page: page + index, top: from, height: Math.max(12, to - from) };
      });
    });
}

/** The page an element of a page is on, and how far down, in pixels. */
function placeOf(element: SVGAElement): { page: number; top: number } {
  const page = element.closest<HTMLElement>('[data-page]')!;
  return {
    page: Number(page.dataset.page),
    top: element.getBoundingClientRect().top - page.getBoundingClientRect().top,
  };
}

watch([() => proof, () => findings, scale], () => void nextTick(() => (placeMarks(), placeNotes())), {
  immediate: true,
  flush: 'post',
});

function anchor(id: string): SVGAElement | null {
  return (
    desk.value?.querySelector<SVGAElement>(
      `a[href="${CSS.escape(SCHEME + id)
        .replace(/\\([^0-9a-f])/gi, '$1')
        .replaceAll('"', '\\"')}"]`,
    ) ?? null
  );
}

/** Puts each finding's number beside the first place where it shows. Marks that would overlap are moved apart. */
function placeMarks(): void {
  const placed = findings.flatMap((finding, index): Mark[] => {
    for (const value of finding.values) {
      const element = anchor(value);
      if (element) return [{ finding, number: index + 1, ...placeOf(element) }];
    }
    return [];
  });
  placed.sort((a, b) => a.page - b.page || a.top - b.top);
  placed.forEach((mark, index) => {
    const above = placed[index - 1];
    if (above && above.page === mark.page) mark.top = Math.max(mark.top, above.top + 20);
  });
  marks.value = placed;
}

function click(event: MouseEvent): void {
  const link = (event.target as Element).closest('a');
  const href = link?.getAttribute('href') ?? '';
  if (!href.startsWith(SCHEME)) return;
  event.preventDefault();
  emit('value', href.slice(SCHEME.length));
}

/** Brings a value into view and lights it for a moment. */
function showValue(id: string): void {
  const element = anchor(id);
  if (!element) return;
  element.scrollIntoView({ block: 'center', behavior: 'instant' });
  element.classList.add('lit');
  setTimeout(() => element.classList.remove('lit'), 1_600);
}
defineExpose({ showValue });
</script>

<template>
  <!-- eslint-disable vue/no-v-html -- the typesetter's own SVG: glyph outlines and links of a private scheme -->
  <div ref="desk" class="desk" @click="click">
    <svg class="glyphs" aria-hidden="true" v-html="proof.pages.glyphs" />
    <figure
      v-for="(page, index) in proof.pages.pages"
      :key="index"
      class="page"
      :aria-label="`Page ${index + 1} of ${proof.pages.pages.length}`"
    >
      <div class="margin">
        <span class="folio">Page {{ index + 1 }} of {{ proof.pages.pages.length }}</span>
        <div
          v-for="note in notes.filter((each) => each.page === index + 1)"
          :key="note.words"
          class="note"
          :style="{ top: `${note.top}px`, height: `${note.height}px` }"
        >
          <span>{{ note.words }}</span>
        </div>
      </div>
      <div class="sheet" :style="sheet" :data-page="index + 1" v-html="page" />
      <div class="marks">
        <button
          v-for="mark in marks.filter((each) => each.page === index + 1)"
          :key="mark.finding.id"
          type="button"
          class="mark"
          :class="mark.finding.severity"
          :style="{ top: `${mark.top - 2}px` }"
          :aria-label="`Finding ${mark.number}: ${mark.finding.title}`"
          @click.stop="emit('finding', mark.finding)"
        >
          {{ mark.number }}
        </button>
      </div>
    </figure>
  </div>
</template>

<style scoped>
.desk {
  height: 100%;
  padding: 20px 0 40px;
  overflow: auto;
}
.glyphs {
  position: absolute;
  width: 0;
  height: 0;
}
.page {
  display: grid;
  grid-template-columns: 150px auto 44px;
  justify-content: center;
  margin-bottom: 20px;
}
.margin,
.marks {
  position: relative;
}
.folio {
  position: absolute;
  top: 0;
  left: 0;
  color: var(--slate);
  font-size: 12px;
}
.note {
  position: absolute;
  right: 7px;
  width: 126px;
  border-right: 0;
}
.note::after {
  position: absolute;
  top: 0;
  right: 0;
  bottom: 0;
  width: 7px;
  border: 1.3px solid var(--slate);
  border-right: 0;
  content: '';
}
.note span {
  position: absolute;
  top: 50%;
  right: 16px;
  width: 116px;
  color: var(--slate);
  font: italic 11.5px/14px var(--serif);
  text-align: end;
  transform: translateY(-50%);
}
.sheet {
  background: var(--sheet);
  box-shadow: var(--sheet-shadow);
}
.sheet :deep(svg) {
  display: block;
  width: 100%;
  height: 100%;
}
.sheet :deep(a) {
  cursor: pointer;
}
.sheet :deep(a:hover rect),
.sheet :deep(a.lit rect),
.sheet :deep(a:focus rect) {
  fill: #1f6d7022;
}
.mark {
  position: absolute;
  left: 12px;
  width: 18px;
  height: 18px;
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: var(--slate);
  color: #fff;
  font: 600 10.5px/18px var(--sans);
  cursor: pointer;
}
.mark.stops {
  background: var(--brick);
}
.mark.warns {
  background: var(--brass-text);
}
</style>
