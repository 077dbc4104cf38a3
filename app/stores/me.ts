import { defineStore } from 'pinia';
import { rulesFor, whyNot, whyNotRoles, type Permission } from '#core/contract/permissions';
import type { Answer } from '~/composables/api';

export type Me = Answer<'GET /me'>;

/** Who is signed in, and what they may not do here, each time with the reason. */
export const useMeStore = defineStore('me', () => {
  const me = shallowRef<Me>();
  /** What waits for the person to sign in again, once their session is over while they are at work. */
  const waiting = shallowRef<{ promise: Promise<void>; resolve: () => void }>();

  /** Takes over who signed in. Another person than before begins with pages of their own. */
  function signedIn(now: Me): void {
    const isOther = me.value !== undefined && me.value.id !== now.id;
    if (isOther) return window.location.assign('/');
    me.value = now;
    waiting.value?.resolve();
    waiting.value = undefined;
  }

  /** Reads who is signed in, if that is not known yet. Gives whether anybody is. */
  async function known(): Promise<boolean> {
    if (me.value) return true;
    try {
      me.value = await callServer('GET /me');
      return true;
    } catch (thrown) {
      if (asProblem(thrown).status === 401) return false;
      throw thrown;
    }
  }

  /** Waits until the person has signed in again; what they typed meanwhile stays where it is. */
  function signInAgain(): Promise<void> {
    if (!waiting.value) {
      let resolve = () => {};
      const promise = new Promise<void>((done) => (resolve = done));
      waiting.value = { promise, resolve };
    }
    return waiting.value.promise;
  }

  async function signOut(): Promise<void> {
    await api('DELETE /session').catch(() => undefined);
    window.location.assign('/sign-in');
  }

  const roles = computed(() => me.value?.roles ?? []);
  /** Why the person may not do something; undefined where they may. */
  const mayNot = (permission: Permission) => whyNot(permission, roles.value);
  /** Why the person may not file documents of a kind. */
  function mayNotFile(kind: string): string | undefined {
    const wanted = me.value?.rules.kinds[kind]?.act ?? [];
    return (
      mayNot('file') ??
      (wanted.length === 0 ? undefined : whyNotRoles(wanted, `file documents of the kind “${kind}”`, roles.value))
    );
  }
  /** Why the person may not change records of a type. */
  function mayNotChange(type: string): string | undefined {
    const rules = rulesFor(me.value?.rules.records ?? {}, type).filter(({ act }) => act.length > 0);
    const refusals = rules.flatMap(
      ({ act }) => whyNotRoles(act, `change records of the type “${type}”`, roles.value) ?? [],
    );
    return mayNot('change') ?? refusals[0];
  }

  return { me, waiting, signedIn, known, signInAgain, signOut, mayNot, mayNotFile, mayNotChange };
});
