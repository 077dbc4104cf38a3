/** What takes characters: not a tick box, on which the cursor stands after a click. */
const TYPED_INTO = 'input:not([type="checkbox"], [type="radio"]), textarea, select, [contenteditable]';

/** Taking back and doing again belong to what is typed, while somebody types. */
const OF_TYPING: ReadonlySet<string> = new Set(['Control+z', 'Control+Shift+z', 'Control+y']);

/**
 * Keys of a screen. Plain characters are left alone while a person types; an open dialog keeps its own keys.
 * A name is the key with `Control+` before it where that is held.
 */
export function useKeys(actions: Record<string, (event: KeyboardEvent) => void>): void {
  useEventListener('keydown', (event) => {
    const name = `${event.ctrlKey || event.metaKey ? `Control+${event.shiftKey ? 'Shift+' : ''}` : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
    const action = actions[name];
    if (!action || event.altKey) return;
    const target = event.target as HTMLElement | null;
    const typing = target?.matches(TYPED_INTO) ?? false;
    if (typing && (!name.startsWith('Control+') || OF_TYPING.has(name))) return;
    if (document.querySelector('[role="dialog"]')) return;
    event.preventDefault();
    action(event);
  });
}
