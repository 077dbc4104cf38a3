import { beforeEach, describe, expect, it } from 'vitest';
import { inNuxt, refusal, type Answering, type Sent } from '../../tests/in-nuxt';
import * as client from '../composables/api';
import { useRecordTypesStore } from './record-types';

const ORDER = { name: 'Order', label: 'Workshop order', plural: 'Workshop orders', parts: {}, needsQuote: false };
let answering: Answering;
let requests: Sent[];
beforeEach(() => {
  answering = () => [ORDER];
  requests = inNuxt((sent) => answering(sent), client);
});

describe('the types of records', () => {
  it('are read once, however many ask for them', async () => {
    const store = useRecordTypesStore();
    await Promise.all([store.load(), store.load()]);
    await store.load();
    expect(requests).toHaveLength(1);
    expect(store.named('Order')).toEqual(ORDER);
    expect([store.called('Order'), store.called('Unknown')]).toEqual(['workshop order', 'record']);
  });

  it('are read again where that failed, and where they changed', async () => {
    const store = useRecordTypesStore();
    answering = () => Promise.reject(refusal(503, 'The CRM can’t be reached'));
    await store.load();
    expect([store.types, store.problem?.title]).toEqual([undefined, 'The CRM can’t be reached']);
    answering = () => [ORDER];
    await store.load();
    expect([store.types?.length, store.problem]).toEqual([1, undefined]);
    answering = () => [];
    await store.forget();
    expect(store.types).toEqual([]);
  });
});
