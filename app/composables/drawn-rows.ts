/** What stands above and below the rows of a list, in pixels. */
const AROUND = 170;
/** Rows drawn at a time. */
const STEP = 6;
/** Between two such steps, so that what was drawn is painted and keys are heard, in milliseconds. */
const BREATH = 25;
/** Until rows that are not in view are drawn, in milliseconds: the page is at rest then. */
const REST = 500;

/**
 * The rows of a long list as they are drawn: from the top, a few in each frame until the window is full, and the others once the page
 * is at rest. So a list is there at once, and looks no different.
 */
export function useDrawnRows<Row extends { id: string }>(rows: () => readonly Row[], rowHeight: number) {
  const drawn = shallowRef<readonly Row[]>([]);

  function draw(count: number): void {
    const all = rows();
    drawn.value = all.slice(0, count);
    if (count >= all.length) return;
    const next = () => rows() === all && draw(count + STEP);
    if (count * rowHeight < window.innerHeight - AROUND) requestAnimationFrame(() => setTimeout(next, BREATH));
    else setTimeout(next, REST);
  }
  watch(
    rows,
    (now, before) => {
      const isSame = before !== undefined && now[0]?.id === before[0]?.id;
      draw(isSame ? Math.max(drawn.value.length, STEP) : STEP);
    },
    { immediate: true },
  );
  return drawn;
}
