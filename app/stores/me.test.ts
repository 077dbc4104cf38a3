import { beforeEach, describe, expect, it, vi } from 'vitest';
import { inNuxt, refusal, settled, type Answering, type Sent } from '../../tests/in-nuxt';
import * as client from '../composables/api';
import { useMeStore, type Me } from './me';

const ME: Me = {
  id: 'p-1',
  name: 'Nell Orrin',
  email: 'nell@orrinvale.example',
  roles: ['producer'],
  isDemo: true,
  codes: false,
  recoveryCodes: 0,
  rules: { kinds: { invoice: { see: [], act: ['finance'] } }, records: { Deal: { see: [], act: [] } } },
  administrators: ['Tamar Whitlow'],
};
const assign = vi.fn();
let answering: Answering;
let requests: Sent[];

beforeEach(() => {
  assign.mockReset();
  answering = () => ME;
  requests = inNuxt((sent) => answering(sent), { ...client, window: { location: { assign } } });
});

const as = (changes: Partial<Me>) => {
  const store = useMeStore();
  store.me = { ...ME, ...changes };
  return store;
};

describe('who is signed in', () => {
  it('is asked once', async () => {
    const store = useMeStore();
    expect(await store.known()).toBe(true);
    expect(await store.known()).toBe(true);
    expect(requests.map(({ to }) => to)).toEqual(['GET /api/me']);
  });

  it('is nobody where the server says so, and unknown where it does not answer', async () => {
    answering = () => Promise.reject(refusal(401, 'Sign in first'));
    expect(await useMeStore().known()).toBe(false);
    answering = () => Promise.reject(new Error('no network'));
    await expect(useMeStore().known()).rejects.toThrow('no network');
  });

  it('begins with pages of their own where they are another than before', () => {
    const store = as({});
    store.signedIn({ ...ME, id: 'p-2' });
    expect(assign).toHaveBeenCalledWith('/');
    expect(store.me!.id).toBe('p-1');
  });

  it('signs out even where the server does not answer', async () => {
    answering = () => Promise.reject(new Error('away'));
    await as({}).signOut();
    expect(assign).toHaveBeenCalledWith('/sign-in');
  });
});

describe('a session that is over', () => {
  it('is begun anew, and what was asked goes on', async () => {
    const store = as({});
    let isOver = true;
    answering = ({ to }) => {
      if (to.endsWith('/templates') && isOver) throw refusal(401, 'The session is over', { reason: 'session' });
      return [];
    };
    const asked = client.api('GET /templates');
    await settled();
    expect(store.waiting).toBeDefined();
    isOver = false;
    store.signedIn(ME);
    expect(await asked).toEqual([]);
    expect(store.waiting).toBeUndefined();
    expect(requests).toHaveLength(2);
  });

  it('is waited for once, whatever asked', async () => {
    const store = as({});
    const [one, other] = [store.signInAgain(), store.signInAgain()];
    store.signedIn(ME);
    await Promise.all([one, other]);
    expect(store.waiting).toBeUndefined();
  });

  it('is another thing than a refusal, which is told at once', async () => {
    answering = () => Promise.reject(refusal(403, 'Your roles do not allow this'));
    await expect(client.api('GET /templates')).rejects.toMatchObject({ data: { status: 403 } });
  });
});

describe('what somebody may not do', () => {
  it('comes with its reason, by their roles', () => {
    expect(as({}).mayNot('file')).toBeUndefined();
    expect(as({ roles: ['reader'] }).mayNot('file')).toMatch(/role/);
  });

  it('goes by the rules for kinds of documents', () => {
    expect(as({}).mayNotFile('quote')).toBeUndefined();
    expect(as({}).mayNotFile('invoice')).toContain('file documents of the kind “invoice”');
    expect(as({ roles: ['producer', 'finance'] }).mayNotFile('invoice')).toBeUndefined();
    expect(as({ roles: [] }).mayNotFile('quote')).toMatch(/role/);
  });

  it('goes by the rules for types of records; what belongs to one goes with it', () => {
    const records = { Deal: { see: [], act: ['finance' as const] } };
    const store = as({ rules: { ...ME.rules, records } });
    expect(store.mayNotChange('Deal')).toContain('change records of the type “Deal”');
    expect(store.mayNotChange('LineItem')).toContain('change records of the type “LineItem”');
    expect(as({ rules: { kinds: {}, records: {} } }).mayNotChange('Deal')).toBeUndefined();
    expect(as({ roles: ['finance'], rules: { ...ME.rules, records } }).mayNotChange('LineItem')).toBeUndefined();
  });
});
