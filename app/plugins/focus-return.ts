/**
 * When a dialog closes, focus goes back to where it was before. Dialogs stand in masks of their own at the end of the page, so that one
 * look at what leaves it is enough for all of them.
 */
export default defineNuxtPlugin(() => {
  let outside: HTMLElement | undefined;
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof HTMLElement && !target.closest('.p-dialog-mask, .p-overlay')) outside = target;
  });
  const isMask = (node: Node) => node instanceof Element && node.classList.contains('p-dialog-mask');
  new MutationObserver((changes) => {
    if (!changes.some(({ removedNodes }) => [...removedNodes].some(isMask))) return;
    if (document.activeElement === document.body) outside?.focus();
  }).observe(document.body, { childList: true });
});
