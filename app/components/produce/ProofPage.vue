<script setup lang="ts">
import type { Finding } from '#core/production/findings/finding';
import { GONE, SECTION, VALUE } from '#core/production/page-contents';
import { drawnWithPaths, type Outlines } from '#core/production/page-drawing';
import type { ProofPage } from '~/composables/proof-drawings';
import type { ShownProof } from '~/composables/proof-drawings';

/** One page of a proof on the desk: reasons of its sections in the left margin, numbers of findings in the right one. */
const { page, outlines, failed, number, count, proof, scale, findings, marked, isNear } = defineProps<{
  page: ProofPage;
  /** Of its glyphs. */
  outlines: Outlines;
  /** It is not drawn yet, and could not be sent for. */
  failed: boolean;
  number: number;
  count: number;
  proof: ShownProof;
  /** Pixels for one point. */
  scale: number;
  /** Those with their mark on this page. */
  findings: readonly { finding: Finding; number: number; value: string }[];
  /** Ids of values that are marked, since they differ from others. */
  marked?: ReadonlySet<string>;
  /** Whether it is drawn: pages far from what is seen are blank sheets of the same size. */
  isNear: boolean;
}>();
const emit = defineEmits<{ finding: [finding: Finding]; drawn: [] }>();

const sheet = useTemplateRef<HTMLElement>('sheet');
const drawing = computed(() =>
  isNear && page.drawing !== undefined ? drawnWithPaths(page.drawing, outlines) : undefined,
);
/** A note in the left margin: beside a section with its bracket, or beside one place. */
interface PlacedNote {
  id: string;
  words: string;
  top: number;
  height: number;
  isPlace: boolean;
}
const notes = shallowRef<(PlacedNote & { lines: number; moved: number })[]>([]);
const marks = shallowRef<{ finding: Finding; number: number; top: number }[]>([]);
const size = computed(() => ({
  width: `${proof.pages.pageSize.width * scale}px`,
  height: `${proof.pages.pageSize.height * scale}px`,
}));

/** How far down something on the page is, in pixels. */
function topOf(href: string): number | undefined {
  const element = [...(sheet.value?.querySelectorAll('a') ?? [])].find((each) => each.getAttribute('href') === href);
  if (!element) return undefined;
  return element.getBoundingClientRect().top - sheet.value!.getBoundingClientRect().top;
}

/** Values are things to press, with what is printed as their name; sections begin and end at links that nobody presses. */
function nameLinks(): void {
  for (const link of sheet.value?.querySelectorAll('a') ?? []) {
    const href = link.getAttribute('href') ?? '';
    link.setAttribute('tabindex', '-1');
    if (href.startsWith(VALUE)) {
      link.setAttribute('role', 'button');
      link.classList.toggle('differs', marked?.has(href.slice(VALUE.length)) === true);
      link.setAttribute('aria-label', proof.values[href.slice(VALUE.length)]?.text || 'Value');
    } else link.setAttribute('aria-hidden', 'true');
  }
}

const NOTE_LINE = 14;
function placeNotes(): void {
  const bottom = (proof.pages.pageSize.height - 70) * scale;
  const beside = (id: string, words: string, top: number): PlacedNote => ({
    id,
    words,
    top,
    height: NOTE_LINE,
    isPlace: true,
  });
  const sections = page.sections.flatMap(({ id, begins, ends }): PlacedNote[] => {
    const words = proof.sections[id];
    if (!words) return [];
    const top = begins ? (topOf(`${SECTION}start:${id}`) ?? 0) : 60 * scale;
    if (id.endsWith(GONE)) return begins ? [beside(id, words, top)] : [];
    const end = ends ? (topOf(`${SECTION}end:${id}`) ?? bottom) : bottom;
    return [{ id, words, top, height: Math.max(12, end - top), isPlace: false }];
  });
  const given = page.values.flatMap((value) => {
    const words = proof.givenNotes[value];
    const top = words === undefined ? undefined : topOf(VALUE + value);
    return top === undefined ? [] : [beside(`given ${value}`, words!, top)];
  });
  const placed = [...sections, ...given];
  const middleOf = ({ top, height }: { top: number; height: number }) => top + height / 2;
  const middles = placed.map(middleOf);
  let taken = -Infinity;
  // Notes that stand close to each other are cut to fit, and moved apart; whole they are in the hint.
  notes.value = placed
    .map((note, at) => {
      const others = middles.filter((_, other) => other !== at).map((middle) => Math.abs(middle - middles[at]!));
      return { ...note, lines: Math.max(1, Math.floor((Math.min(...others, 200) + 3) / NOTE_LINE)) };
    })
    .toSorted((one, other) => middleOf(one) - middleOf(other))
    .map((note) => {
      const half = (note.lines * NOTE_LINE) / 2;
      const moved = Math.max(0, taken - (middleOf(note) - half));
      taken = middleOf(note) + moved + half;
      return { ...note, moved };
    });
}

/** Puts each finding's number beside its value. Marks that would overlap are moved apart. */
function placeMarks(): void {
  const placed = findings.flatMap(({ finding, number, value }) => {
    const top = topOf(VALUE + value);
    return top === undefined ? [] : { finding, number, top };
  });
  placed.sort((one, other) => one.top - other.top);
  placed.forEach((mark, at) => (mark.top = Math.max(mark.top, (placed[at - 1]?.top ?? -20) + 20)));
  marks.value = placed;
}

function placeAround(): void {
  if (!isNear) return;
  placeNotes();
  placeMarks();
}
function dress(): void {
  if (!isNear) return;
  nameLinks();
  placeAround();
  emit('drawn');
}
onMounted(dress);
// A page that is drawn as before prints the same values: only what stands around it may be another.
watch([drawing, () => marked, () => scale], dress, { flush: 'post' });
const around = computed(() =>
  JSON.stringify([
    page.sections.map((section) => [section, proof.sections[section.id]]),
    page.values.map((value) => proof.givenNotes[value]),
    findings.map(({ finding: { id }, number: its, value }) => [id, its, value]),
  ]),
);
watch(around, placeAround, { flush: 'post' });
</script>

<template>
  <!-- eslint-disable vue/no-v-html -- the typesetter's own SVG: glyph outlines and links of a private scheme -->
  <figure class="page" :aria-label="`Page ${number} of ${count}`">
    <div class="margin">
      <span class="folio">Page {{ number }} of {{ count }}</span>
      <template v-if="isNear">
        <div
          v-for="note in notes"
          :key="note.id"
          class="note"
          :class="{ place: note.isPlace }"
          :style="{ top: `${note.top}px`, height: `${note.height}px` }"
        >
          <span :title="note.words" :style="{ '-webkit-line-clamp': note.lines, marginTop: `${note.moved}px` }">{{
            note.words
          }}</span>
        </div>
      </template>
    </div>
    <div ref="sheet" class="sheet" :style="size" :data-page="number">
      <template v-if="isNear">
        <div v-if="drawing !== undefined" class="drawing" v-html="drawing" />
        <p v-else class="undrawn">
          {{ failed ? `Page ${number} did not come. Refresh the proof (R).` : `Page ${number} is on its way …` }}
        </p>
      </template>
    </div>
    <div class="marks">
      <template v-if="isNear">
        <button
          v-for="mark in marks"
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
      </template>
    </div>
  </figure>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 150px auto 44px;
  justify-content: safe center;
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
.note.place::after {
  border-width: 0 0 1.3px;
  bottom: 50%;
}
.note span {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  position: absolute;
  top: 50%;
  right: 16px;
  width: 116px;
  color: var(--slate);
  font: italic 11.5px/14px var(--serif);
  text-align: end;
  transform: translateY(-50%);
}
/* A narrow desk is for the page alone. */
@container desk (max-width: 700px) {
  .page {
    grid-template-columns: 12px auto 44px;
  }
  .note {
    display: none;
  }
  .folio {
    top: -18px;
    left: 12px;
    white-space: nowrap;
  }
}
.sheet {
  background: var(--paper);
  box-shadow: var(--sheet-shadow);
}
.undrawn {
  padding-top: 40%;
  color: var(--slate);
  text-align: center;
}
.drawing,
.sheet :deep(svg) {
  display: block;
  width: 100%;
  height: 100%;
}
.sheet :deep(a) {
  cursor: pointer;
  outline: none;
}
.sheet :deep(a:hover rect),
.sheet :deep(a.differs rect) {
  fill: var(--brass);
  fill-opacity: 0.22;
}
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
  color: var(--on-colour);
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
