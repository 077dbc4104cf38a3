import { createPinia, setActivePinia } from 'pinia';
import { useThrottleFn } from '@vueuse/core';
import * as vue from 'vue';
import { vi } from 'vitest';

/** A request that a page sent, as the server would see it. */
export interface Sent {
  /** `GET /api/records/Deal` */
  to: string;
  query?: Readonly<Record<string, string>>;
  body?: unknown;
  headers: Readonly<Record<string, string>>;
}

/** What a server answers: a value, or problem details that it refuses with. */
export type Answering = (sent: Sent) => unknown;

/** Problem details as they come back from a call. */
export const refusal = (status: number, title: string, more: object = {}) => ({
  data: { status, title, detail: `${title}.`, ...more },
});

/**
 * Puts in place what Nuxt gives every file of app/ without an import: Vue's functions, a store of stores, an empty storage, `$fetch` with a made-up
 * server behind it, and whatever else is `given`. Gives all requests that were sent.
 */
export function inNuxt(answering: Answering, given: object = {}): Sent[] {
  const requests: Sent[] = [];
  setActivePinia(createPinia());
  const $fetch = (path: string, options: { method: string } & Omit<Sent, 'to'>) => {
    const { method, body, headers } = options;
    const [place, query] = path.split('?') as [string, string?];
    const sent = {
      to: `${method} ${place}`,
      query: query === undefined ? undefined : Object.fromEntries(new URLSearchParams(query)),
      body,
      headers,
    };
    requests.push(sent);
    return Promise.resolve().then(() => answering(sent));
  };
  for (const [name, value] of Object.entries({ ...vue, useThrottleFn, $fetch, localStorage: emptyStorage(), ...given }))
    vi.stubGlobal(name, value);
  return requests;
}

/** What a browser keeps for a site. */
function emptyStorage(): Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> {
  const kept = new Map<string, string>();
  return {
    getItem: (name) => kept.get(name) ?? null,
    setItem: (name, text) => void kept.set(name, text),
    removeItem: (name) => void kept.delete(name),
  };
}

/** Lets everything that waits for an answer go on. */
export const settled = () => new Promise<void>((done) => setTimeout(done, 0));
