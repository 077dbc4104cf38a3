import type { DirectiveBinding, ObjectDirective, VNode } from 'vue';

/** What Vue told last of an element with a hint. */
interface Hinted {
  binding: DirectiveBinding;
  vnode: VNode;
  /** Once PrimeVue's directive has taken the element over. */
  hooks?: ObjectDirective<HTMLElement>;
}
type Hook = 'created' | 'beforeMount' | 'mounted' | 'beforeUpdate' | 'updated' | 'beforeUnmount' | 'unmounted';

const hinted = new WeakMap<HTMLElement, Hinted>();

/**
 * `v-tooltip`: PrimeVue's hint, which takes an element over when the pointer first comes to it. So a list with hints in each row
 * neither loads it nor waits for it.
 */
export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.directive<HTMLElement>('tooltip', {
    mounted(element, binding, vnode) {
      hinted.set(element, { binding, vnode });
      element.addEventListener('pointerenter', () => void takeOver(element), { once: true });
    },
    updated(element, binding, vnode) {
      Object.assign(hinted.get(element)!, { binding, vnode });
      tell(element, 'beforeUpdate', 'updated');
    },
    unmounted: (element) => tell(element, 'beforeUnmount', 'unmounted'),
  });
});

async function takeOver(element: HTMLElement): Promise<void> {
  const { default: hooks } = await import('primevue/tooltip');
  if (!element.isConnected) return;
  hinted.get(element)!.hooks = hooks as ObjectDirective<HTMLElement>;
  tell(element, 'created', 'beforeMount', 'mounted');
  // The pointer came before the hint could hear of it.
  if (element.matches(':hover')) element.dispatchEvent(new MouseEvent('mouseenter'));
}

function tell(element: HTMLElement, ...names: Hook[]): void {
  const { hooks, binding, vnode } = hinted.get(element)!;
  for (const name of names)
    (hooks?.[name] as ((...told: unknown[]) => void) | undefined)?.(element, binding, vnode, null);
}
