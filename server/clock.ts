import { AsyncLocalStorage } from 'node:async_hooks';

const told = new AsyncLocalStorage<Date>();

/** What time it is for what people do: the machine's, unless they did it in the past. */
export const now = (): Date => told.getStore() ?? new Date();

/** Does something as it was done at another time. */
export const doneAt = <T>(at: Date, act: () => Promise<T>): Promise<T> => told.run(at, act);
