import { defineStore } from 'pinia';
import type { Template } from '#core/template/template';
import type { Tried } from '#core/template/what-if';
import { SAMPLE_ID } from '#core/template/sample-record';
import type { Answer, ApiProblem } from '~/composables/api';
import { Drawings, undrawn, type ProofPages } from '~/composables/proof-drawings';
import { useDraftStore } from './draft';
import { useFiguresStore } from './figures';

/** The proof of a draft with the drawings that are at hand. */
export type DraftProof = Omit<Answer<'POST /templates/{id}/draft/proof'>, 'pages'> & { pages: ProofPages };

/** What a proof of the draft is made of. */
interface Wanted {
  template: Template;
  record: string;
  tried: readonly Tried[];
  /** A filed document whose kept data is taken in place of the record's. */
  document?: string;
  edition: string | undefined;
  houseStyle: string | undefined;
}

/** The draft as it prints, beside its sheet: it follows what is typed, for the record that is shown there. */
export const useDraftProofStore = defineStore('draft-proof', () => {
  const draft = useDraftStore();
  const figures = useFiguresStore();
  const proof = shallowRef<DraftProof>();
  const problem = shallowRef<ApiProblem>();
  /** Whether what is shown is older than the draft. */
  const loading = ref(false);
  /** Whether somebody looks at it. */
  const isOpen = ref(false);
  /** Instead of what the template chooses. */
  const edition = ref<string>();
  const houseStyle = ref<string>();
  const drawings = new Drawings();
  let near: readonly number[] = [1];
  let isFresh = false;

  const wanted = computed((): Wanted | undefined => {
    const template = draft.template;
    const record = figures.shown?.record.id;
    if (!isOpen.value || !template || record === undefined) return undefined;
    return { template, record, tried: figures.tried, edition: edition.value, houseStyle: houseStyle.value };
  });

  let underWay: Promise<void> | undefined;
  /** Sends for the proof as it is wanted now; what changes while one is on its way is sent for once, after it. */
  function follow(): Promise<void> {
    underWay ??= followUntilNew().finally(() => (underWay = undefined));
    return underWay;
  }
  async function followUntilNew(): Promise<void> {
    let sent: Wanted | undefined;
    let isMissing = false;
    while (wanted.value && (sent !== wanted.value || isMissing || isFresh)) {
      sent = wanted.value;
      loading.value = true;
      try {
        const answer = await draftProof(sent, { has: drawings.digests, near: [...near], fresh: isFresh });
        isFresh = false;
        proof.value = { ...answer, pages: drawings.of(answer.pages) };
        problem.value = undefined;
        isMissing = undrawn(proof.value.pages.pages, near)?.isNear === true;
      } catch (thrown) {
        problem.value = asProblem(thrown);
        [isMissing, isFresh] = [false, false];
      }
    }
    loading.value = false;
  }
  watch(wanted, () => void follow());

  /** Says which pages are near the view. */
  function lookAt(numbers: readonly number[]): void {
    near = numbers.length > 0 ? numbers : [1];
    if (proof.value && undrawn(proof.value.pages.pages, near)?.isNear) void again();
  }
  /** Sends for the same proof once more; `fresh`: with the record read anew. */
  async function again(fresh = false): Promise<void> {
    isFresh ||= fresh;
    await underWay;
    await follow();
  }

  function close(): void {
    isOpen.value = false;
    [proof.value, problem.value, edition.value, houseStyle.value] = [undefined, undefined, undefined, undefined];
  }

  return { proof, problem, loading, isOpen, edition, houseStyle, lookAt, again, close };
});

/** The proof of a draft as it is given. */
export function draftProof(
  { template, record, document, tried, edition, houseStyle }: Wanted,
  sending: { has: string[]; near: number[]; fresh?: boolean },
): Promise<Answer<'POST /templates/{id}/draft/proof'>> {
  return api('POST /templates/{id}/draft/proof', {
    parameters: { id: template.id },
    body: {
      template,
      ...(record !== SAMPLE_ID && { record }),
      document,
      tried: [...tried],
      edition,
      houseStyle,
      ...sending,
    },
  });
}
