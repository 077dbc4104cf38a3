import { asProblem, type ApiProblem } from './api';

/** Something loaded from the server: what came, what went wrong, whether it is on its way. The newest call wins. */
export function useLoaded<T>(load: () => Promise<T>) {
  const value = shallowRef<T>();
  const problem = shallowRef<ApiProblem>();
  const loading = ref(false);
  let newest = 0;
  let tellFirst = () => {};
  /** Fulfilled once something came, or went wrong, for the first time. */
  const first = new Promise<void>((resolve) => (tellFirst = resolve));

  async function reload(): Promise<void> {
    const mine = ++newest;
    loading.value = true;
    try {
      const loaded = await load();
      if (mine !== newest) return;
      value.value = loaded;
      problem.value = undefined;
    } catch (thrown) {
      if (mine === newest) problem.value = asProblem(thrown);
    } finally {
      if (mine === newest) {
        loading.value = false;
        tellFirst();
      }
    }
  }
  return { value, problem, loading, reload, first };
}

/** A person does not notice that a page takes so much longer, in milliseconds. */
const MOMENT = 150;

/**
 * Waits a moment for what a page shows, so that it is drawn once, with everything on it. What takes longer comes to a page that is
 * there already.
 */
export async function soon(...loads: readonly Promise<unknown>[]): Promise<void> {
  await Promise.race([Promise.all(loads), new Promise((resolve) => setTimeout(resolve, MOMENT))]);
}
