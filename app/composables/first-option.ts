import type { SelectFilterEvent } from 'primevue/select';

/** Marks the first option that is left after a search, so that Enter takes it. */
export async function markFirstOption({ originalEvent: { target } }: SelectFilterEvent): Promise<void> {
  await nextTick();
  target?.dispatchEvent(new KeyboardEvent('keydown', { code: 'ArrowDown', bubbles: true }));
}
