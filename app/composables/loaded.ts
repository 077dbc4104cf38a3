import { asProblem, type ApiProblem } from './api';

/** Something loaded from the server: what came, what went wrong, whether it is on its way. The newest call wins. */
export function useLoaded<T>(load: () => Promise<T>) {
  const value = shallowRef<T>();
  const problem = shallowRef<ApiProblem>();
  const loading = ref(false);
  let newest = 0;

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
      if (mine === newest) loading.value = false;
    }
  }
  return { value, problem, loading, reload };
}
