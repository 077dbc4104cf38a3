import { useStorage } from '@vueuse/core';
import type { Ref } from 'vue';

/** What outlives a reload of the page, for as long as its tab is open. Plain data. */
export function useKept<T>(name: string, usual: T): Ref<T> {
  const serializer = { read: (text: string) => JSON.parse(text) as T, write: (value: T) => JSON.stringify(value) };
  return useStorage<T>(name, usual, globalThis.sessionStorage, { serializer }) as Ref<T>;
}
