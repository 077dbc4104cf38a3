import { defineStore } from 'pinia';
import type { Answer, ApiProblem } from '~/composables/api';

export type RecordType = Answer<'GET /record-types'>[number];

/** The types of records that documents are made from, by what the CRM calls them. */
export const useRecordTypesStore = defineStore('record types', () => {
  const types = shallowRef<readonly RecordType[]>();
  const problem = shallowRef<ApiProblem>();
  let loading: Promise<void> | undefined;

  /** Reads the types once; where that failed, again. */
  function load(): Promise<void> {
    if (types.value) return Promise.resolve();
    loading ??= read().finally(() => (loading = undefined));
    return loading;
  }

  async function read(): Promise<void> {
    try {
      types.value = await api('GET /record-types');
      problem.value = undefined;
    } catch (thrown) {
      problem.value = asProblem(thrown);
    }
  }

  /** Has them read again: they are shown otherwise from now on. */
  function forget(): Promise<void> {
    types.value = undefined;
    return load();
  }

  const named = (type: string) => types.value?.find(({ name }) => name === type);
  /** What a record of a type is called in a sentence: "deal". */
  const called = (type: string) => (named(type)?.label ?? 'record').toLowerCase();

  return { types, problem, load, forget, named, called };
});
