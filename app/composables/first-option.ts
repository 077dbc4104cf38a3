/** PrimeVue forgets the marked option this long after its list has taken the focus. In milliseconds. */
const FORGETS_AFTER = 100;

/** What one types in a Select's search marks the first option that is left, and Enter takes it. */
export const MARKS_FIRST_OPTION = {
  async onInput({ target }: Event): Promise<void> {
    const search = target as HTMLInputElement;
    await nextTick();
    markFirst(search);
    setTimeout(() => markFirst(search), FORGETS_AFTER);
  },
  onKeydownCapture({ code, target }: KeyboardEvent): void {
    if (code === 'Enter' || code === 'NumpadEnter') markFirst(target as HTMLInputElement);
  },
};

/** Marks the first option, as the arrow key does, where something is searched for and nothing is marked. */
function markFirst(search: HTMLInputElement): void {
  if (search !== document.activeElement || search.value === '' || search.hasAttribute('aria-activedescendant')) return;
  search.dispatchEvent(new KeyboardEvent('keydown', { code: 'ArrowDown', bubbles: true }));
}
