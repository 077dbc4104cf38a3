import { asProblem, type ApiProblem } from './api';

/** Something that a form does on the server: whether it is under way, and what went wrong the last time. */
export function useAttempt() {
  const busy = ref(false);
  const problem = shallowRef<ApiProblem>();

  /** Does it. What goes wrong is kept, to be shown beside what was typed. Gives whether it went well. */
  async function attempt(call: () => Promise<void>): Promise<boolean> {
    busy.value = true;
    problem.value = undefined;
    try {
      await call();
      return true;
    } catch (thrown) {
      problem.value = asProblem(thrown);
      return false;
    } finally {
      busy.value = false;
    }
  }
  return { busy, problem, attempt };
}

/** Does something that a row or a menu offers, says in passing that it is done or why not, and then shows things as they are. */
export function useAct(reload: () => Promise<unknown>): (call: () => Promise<unknown>, done: string) => Promise<void> {
  const toast = useToast();
  return async (call, done) => {
    try {
      await call();
      toast.add({ severity: 'secondary', summary: done, life: 4_000 });
    } catch (thrown) {
      const { title, detail } = asProblem(thrown);
      toast.add({ severity: 'error', summary: title, detail, life: 8_000 });
    }
    await reload();
  };
}
