import { defineStore } from 'pinia';
import type { Template } from '#core/template/template';
import type { ApiProblem } from '~/composables/api';
import { Drawings } from '~/composables/proof-drawings';
import { useDraftStore } from './draft';
import { draftProof, type DraftProof } from './draft-proof';
import { useProofRecordsStore } from './proof-records';

/** A record that the draft is proved on, with what prints for it once that is set. */
export interface TenProof {
  id: string;
  name: string;
  proof?: DraftProof;
  problem?: ApiProblem;
}

/** How many are asked for at once: one more than the press sets, which is read meanwhile. */
const AT_ONCE = 3;

/** The draft over the records that it is proved on, all at once: what prints for each, what stops it, and which sections print. */
export const useTenProofsStore = defineStore('ten-proofs', () => {
  const draft = useDraftStore();
  const records = useProofRecordsStore();
  const proofs = shallowRef<readonly TenProof[]>([]);
  let newest = 0;
  let provedOf: Template | undefined;

  /** Proves the draft as it is now. @throws ApiProblem where the records cannot be read */
  async function prove(): Promise<void> {
    const mine = ++newest;
    await draft.save();
    provedOf = draft.template;
    proofs.value = (await records.choose()).map(({ id, name }) => ({ id, name }));
    const isWanted = () => mine === newest;
    await inTurns(proofs.value, AT_ONCE, isWanted, async (each) => {
      const proved = { ...each, ...(await proofOf(each.id)) };
      if (isWanted()) proofs.value = proofs.value.map((known) => (known.id === proved.id ? proved : known));
    });
  }
  async function proofOf(record: string): Promise<Pick<TenProof, 'proof' | 'problem'>> {
    const wanted = { template: draft.template!, record, tried: [], edition: undefined, houseStyle: undefined };
    try {
      const answer = await draftProof(wanted, { has: [], near: [1] });
      return { proof: { ...answer, pages: new Drawings().of(answer.pages) } };
    } catch (thrown) {
      return { problem: asProblem(thrown) };
    }
  }
  /** The same where the draft is another than the one that was proved last. @throws ApiProblem */
  async function proveWhatIsNew(): Promise<void> {
    if (provedOf !== draft.template || proofs.value.length === 0) await prove();
  }

  const done = computed(() => proofs.value.filter(({ proof, problem }) => proof ?? problem));
  const isDone = computed(() => proofs.value.length > 0 && done.value.length === proofs.value.length);
  /** What stops filing one of them. */
  const stopsOf = ({ proof, problem }: TenProof): string[] =>
    problem
      ? [problem.detail]
      : (proof?.findings ?? []).filter(({ severity }) => severity === 'stops').map(({ title }) => title);
  const stopped = computed(() => done.value.filter((each) => stopsOf(each).length > 0));

  /** Every section of the draft, with the records that it prints for. */
  const sections = computed(() => {
    const found = new Map<string, { note: string; records: Set<string> }>();
    for (const { id, proof } of done.value) {
      for (const [block, note] of Object.entries(proof?.sections ?? {})) {
        const section = found.get(block) ?? { note: '', records: new Set() };
        found.set(block, { note, records: new Set([...section.records, id]) });
      }
      for (const { block, note } of proof?.leftOut ?? [])
        if (!found.has(block)) found.set(block, { note: `when ${note}`, records: new Set() });
    }
    return [...found].map(([block, section]) => ({ block, ...section }));
  });

  /** What it came to, in a sentence. */
  const summary = computed(() => {
    const count = proofs.value.length || 10;
    if (!isDone.value) return `Setting ${Math.min(count, done.value.length + 1)} of ${count} …`;
    const never = sections.value.filter(({ records: printed }) => printed.size === 0);
    const parts = [];
    if (stopped.value.length > 0)
      parts.push(
        `${stopped.value.length === 1 ? 'One stops' : `${stopped.value.length} stop`}: ${listed(stopped.value.map(({ name }) => name))}.`,
      );
    if (never.length > 0)
      parts.push(
        `${never.length === 1 ? 'One section prints' : `${never.length} sections print`} for none of them: ${listed(never.map(({ note }) => note))}.`,
      );
    return parts.join(' ') || 'Every section prints for one of them at least.';
  });

  /** Nobody looks at them any more. */
  function leave(): void {
    newest++;
    // What is not done yet is begun anew the next time.
    if (!isDone.value) provedOf = undefined;
  }

  return { proofs, isDone, stopped, sections, summary, stopsOf, prove, proveWhatIsNew, leave };
});

const words = new Intl.ListFormat('en-GB');
/** So many are named; the others are counted. */
const NAMED = 3;
const listed = (names: readonly string[]) =>
  words.format(names.length > NAMED + 1 ? [...names.slice(0, NAMED), `${names.length - NAMED} more`] : names);
