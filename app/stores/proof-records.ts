import { defineStore } from 'pinia';
import type { Answer } from '~/composables/api';
import type { Holding } from '~/workers/figure-workshop';
import { useDraftStore } from './draft';

/** The records that the draft is proved on: conditions are tried on them while they are written. */
export const useProofRecordsStore = defineStore('proof-records', () => {
  const workshop = useWorkshop();
  const draft = useDraftStore();
  /** With their values once those were asked for. */
  const records = shallowRef<Answer<'GET /templates/{id}/draft/proof-records'>>([]);
  let loaded: string | undefined;

  /** The records as they are chosen now. @throws ApiProblem */
  async function choose(): Promise<typeof records.value> {
    const { id } = draft.template!;
    loaded = undefined;
    return (records.value = await api('GET /templates/{id}/draft/proof-records', { parameters: { id }, query: {} }));
  }

  let loading: Promise<void> | undefined;
  /** Reads the records with their values, once for a template; where they do not come, conditions are written without them. */
  function load(): Promise<void> {
    const id = draft.template?.id;
    if (id === undefined || id !== loaded) {
      loaded = id;
      loading = id === undefined ? undefined : read(id);
    }
    return loading ?? Promise.resolve();
  }
  async function read(id: string): Promise<void> {
    try {
      records.value = await api('GET /templates/{id}/draft/proof-records', {
        parameters: { id },
        query: { values: true },
      });
      await workshop.proveOn(records.value.flatMap(({ name, record }) => (record ? [{ name, record }] : [])));
    } catch {
      [records.value, loaded] = [[], undefined];
    }
  }

  /** For which of the records a condition holds. */
  async function holdsFor(source: string): Promise<Holding[]> {
    await load();
    return records.value.length > 0 ? workshop.holdsFor(source) : [];
  }

  /** The currencies of their amounts. */
  const currencies = computed(() => {
    const found = new Set<string>();
    JSON.stringify(records.value, (key, value: unknown) => {
      if (key === 'currency' && typeof value === 'string' && /^[A-Z]{3}$/.test(value)) found.add(value);
      return value;
    });
    return [...found].sort();
  });

  return { records, currencies, choose, load, holdsFor };
});
