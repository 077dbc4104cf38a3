import { defineStore } from 'pinia';
import { proofAsked, type Chosen } from '#core/contract/page-reads';
import type { WantedChange } from '#core/production/document-change';
import type { Finding } from '#core/production/findings/finding';
import type { Workings } from '#core/sheet/workings';
import type { Tried } from '#core/template/what-if';
import type { Answer, ApiProblem, DocumentRow } from '~/composables/api';
import { Drawings, undrawn, type ProofPages } from '~/composables/proof-drawings';

/** A proof with the drawings that are at hand. */
export type Proof = Omit<Answer<'POST /productions'>, 'pages'> & { pages: ProofPages };

/** How far a filing is. */
export interface FilingProgress {
  id: string;
  number: string;
  state: DocumentRow['state'];
  reason: string | null;
  /** When a filing that waits is tried next. */
  dueAt: string | null;
  /** Steps that are left once it is filed, and whether the next of them is held for a person. */
  stepsLeft: number;
  isHeld: boolean;
}

const progressOf = ({ id, number, state, reason, dueAt, stepsLeft, isHeld }: DocumentRow): FilingProgress => ({
  id,
  number,
  state,
  reason,
  dueAt,
  stepsLeft,
  isHeld,
});

/** Why a finding is skipped, and what it said then. */
interface Skip {
  reason: string;
  of: string;
}

/** How long a proof that was sent for is what the page asks for, in milliseconds. */
const FRESH = 5_000;

/** Choices alone, of what may hold more. */
export const chosenOf = ({ edition, plan, asNew, issueDate }: Chosen): Chosen => ({ edition, plan, asNew, issueDate });
/** Whether the same is chosen. */
export const isSameChoice = (one: Chosen, other: Chosen): boolean =>
  one.edition === other.edition &&
  one.plan === other.plan &&
  (one.asNew ?? false) === (other.asNew ?? false) &&
  one.issueDate === other.issueDate;

/** What a proof is of. */
interface Subject extends Chosen {
  record: string;
  template: string;
  /** A document in hand. */
  production?: string;
}
/** What is gone on with, and how it shall be changed. */
interface GoingOn {
  production: string;
  revision?: number;
  changes?: readonly WantedChange[];
}
const subjectOf = ({ record, template }: Subject): string => `${template} ${record}`;

/** The proof that is open: its pages and findings, what a person does to them, and its filing. */
export const useProofStore = defineStore('proof', () => {
  const proof = shallowRef<Proof>();
  const problem = shallowRef<ApiProblem>();
  const loading = ref(false);
  /** What is proofed: a record with a template. */
  const subject = ref('');
  /** Reasons for skipped findings, by subject and finding: who goes to the record and comes back finds them again. */
  const allSkips = useKept<Record<string, Record<string, Skip>>>('skipped', {});
  const skips = computed({
    get: () => allSkips.value[subject.value] ?? {},
    set: (reasons) => (allSkips.value = { ...allSkips.value, [subject.value]: reasons }),
  });
  /** The reasons that hold: a finding that says something else by now, with other values, is skipped anew. */
  const skipped = computed(() =>
    Object.fromEntries(
      findings.value.flatMap(({ id, sentence }) => {
        const skip = skips.value[id];
        return skip?.of === sentence ? [[id, skip.reason]] : [];
      }),
    ),
  );
  /** Documents that are being filed, by subject: a reload shows them again. */
  const filings = useKept<Record<string, string>>('filings', {});
  const workings = shallowRef<Workings>();
  const filing = ref<FilingProgress>();
  const filingProblem = shallowRef<ApiProblem>();
  /** From pressing File until the document is filed or has failed. */
  const busy = ref(false);
  /** What is asked for with a proof; of a document in hand, its own choices hold. */
  const asked = shallowRef<Chosen>({});
  /** The production of a document in hand: something was changed in it, and it is gone on with. */
  const inHand = ref<string>();
  let newest = 0;

  const findings = computed<Finding[]>(() => proof.value?.findings ?? []);
  const isOpen = (finding: Finding) =>
    finding.severity === 'stops' || (finding.severity === 'warns' && !skipped.value[finding.id]);
  const openFindings = computed(() => findings.value.filter(isOpen));
  const mayFile = computed(
    () =>
      !!proof.value &&
      // What would be filed is what is shown.
      !loading.value &&
      openFindings.value.length === 0 &&
      !busy.value &&
      filing.value?.state !== 'filed',
  );

  const drawings = new Drawings();
  /** Numbers of the pages near the view. */
  let near: readonly number[] = [];
  /** Ends the wait for a moment when nobody waits. */
  let endWait = (): void => undefined;
  /** Waits until the browser has nothing else to do, the view moves, or half a second. */
  const idle = () =>
    new Promise<void>((resolve) => {
      endWait = resolve;
      requestIdleCallback(() => resolve(), { timeout: 500 });
    });

  /** A proof with the drawings of the pages near the view. `written`: what was written to the record from here, as it was typed. */
  async function ask(
    { record, template, production, ...choices }: Subject,
    on?: GoingOn,
    written?: readonly Tried[],
  ): Promise<Proof> {
    const has = drawings.digests;
    const shown = proof.value;
    const isOfSame = shown?.record.id === record && shown.template.id === template;
    // The first of a page was sent for with the page itself.
    const answer =
      has.length === 0 && !on
        ? await api('GET /productions', { query: proofAsked(template, record, { ...choices, production }) })
        : await api('POST /productions', {
            body: {
              template,
              record,
              choices,
              ...(on ? { ...on, changes: on.changes && [...on.changes] } : { production }),
              has,
              near: near.length > 0 ? [...near] : undefined,
              // What changed on the record since is told.
              since: isOfSame ? shown.id : undefined,
              written: written && [...written],
            },
          });
    return { ...answer, pages: drawings.of(answer.pages) };
  }

  /** Pages could not be sent for. */
  const pagesFailed = ref(false);
  let drawing: Promise<void> | undefined;
  /** Sends for the pages that are not drawn, and ends when all are or one could not be sent for. */
  function drawPages(): Promise<void> {
    pagesFailed.value = false;
    drawing ??= sendForPages()
      .catch(() => void (pagesFailed.value = true))
      .finally(() => (drawing = undefined));
    return drawing;
  }

  /** Pages near the view are sent for at once, the others while nobody waits. */
  async function sendForPages(): Promise<void> {
    for (let shown = proof.value; shown; shown = proof.value) {
      const missing = undrawn(shown.pages.pages, near);
      if (!missing) return;
      if (!missing.isNear) await idle();
      // The view may have moved meanwhile.
      const { skip, top } = undrawn(shown.pages.pages, near) ?? missing;
      const { pages } = await api('GET /productions/{id}/pages', {
        parameters: { id: shown.id },
        query: { skip, top },
      });
      if (proof.value === shown) proof.value = { ...shown, pages: drawings.with(shown.pages, pages) };
    }
  }

  /** Says which pages are near the view. */
  function lookAt(numbers: readonly number[]): void {
    near = numbers;
    endWait();
    void drawPages();
  }

  /** A proof that is on its way before its page is there. */
  let ahead: (Subject & { at: number; proof: Promise<Proof> }) | undefined;

  /** Sends for a proof whose page is about to be opened. */
  function sendFor(wanted: Subject): void {
    const sent = ask(wanted);
    // What goes wrong is told where it is looked at.
    sent.catch(() => undefined);
    ahead = { ...wanted, at: Date.now(), proof: sent };
  }

  /** Opens a proof: with the reasons for skipping that were typed before, and with the filing that is under way, if there is one. */
  async function open(wanted: Subject): Promise<void> {
    const isOther = subject.value !== subjectOf(wanted);
    if (isOther) {
      leave();
      subject.value = subjectOf(wanted);
    }
    asked.value = chosenOf(wanted);
    if (isOther) inHand.value = wanted.production;
    else if (isShown(wanted)) return;
    await Promise.all([load(wanted.record, wanted.template), isOther && findFiling()]);
  }

  /** Whether the proof that is there is what is asked for: its address says so once something was chosen in it. */
  function isShown({ production, ...wanted }: Subject): boolean {
    if (!proof.value || loading.value) return false;
    return isSameChoice(wanted, inHand.value ? {} : proof.value.choices) && production === inHand.value;
  }

  /** Takes up the filing that was under way when the page was loaded anew. */
  async function findFiling(): Promise<void> {
    const sought = subject.value;
    const id = filings.value[sought];
    if (id === undefined) return;
    busy.value = true;
    try {
      const { document } = await api('GET /documents/{id}', { parameters: { id } });
      // Another proof may have been opened meanwhile.
      if (subject.value !== sought) return;
      filing.value = progressOf(document);
      busy.value = !isEnded(document);
      if (!isSettled(document)) follow(id);
    } catch {
      if (subject.value === sought) busy.value = false;
    }
  }

  async function load(recordId: string, templateId: string, written?: readonly Tried[]): Promise<void> {
    const wanted = { record: recordId, template: templateId, ...asked.value, production: inHand.value };
    const isAhead =
      ahead?.record === recordId &&
      ahead.template === templateId &&
      isSameChoice(ahead, wanted) &&
      ahead.production === wanted.production &&
      Date.now() - ahead.at < FRESH;
    const sent = isAhead ? ahead!.proof : undefined;
    ahead = undefined;
    problem.value = (await show(() => sent ?? ask(wanted, undefined, written))) ?? problem.value;
  }

  /** Makes the proof anew where its record says something else by now. While the CRM is away, it stays as it is. */
  async function lookAgain(): Promise<void> {
    const shown = proof.value;
    if (!shown || loading.value || busy.value || filing.value) return;
    const answer = await api('GET /productions/{id}/changed', { parameters: { id: shown.id } }).catch(() => undefined);
    const isAsBefore = proof.value === shown && !loading.value && !busy.value && !filing.value;
    if (answer?.changed && isAsBefore) await load(shown.record.id, shown.template.id);
  }

  /** Shows a proof that is sent for, unless a newer one is asked for meanwhile. Gives why it did not come. */
  async function show(sendFor: () => Promise<Proof>): Promise<ApiProblem | undefined> {
    const mine = ++newest;
    loading.value = true;
    try {
      const loaded = await sendFor();
      if (mine !== newest) return undefined;
      proof.value = loaded;
      inHand.value = loaded.changes.length > 0 ? loaded.id : undefined;
      problem.value = undefined;
      void drawPages();
      if (workings.value) await explain(workings.value.id);
    } catch (thrown) {
      return mine === newest ? asProblem(thrown) : undefined;
    } finally {
      if (mine === newest) loading.value = false;
    }
    return undefined;
  }

  /** What was changed for this document alone, in its order. */
  const changes = computed(() => proof.value?.changes ?? []);
  /** What it was before each change, and what was taken back. */
  const done = shallowRef<readonly (readonly WantedChange[])[]>([]);
  const undone = shallowRef<readonly (readonly WantedChange[])[]>([]);

  /** Has the document be otherwise, from now on. Gives why that was refused. */
  async function changeTo(wanted: readonly WantedChange[], choices?: Chosen): Promise<ApiProblem | undefined> {
    const shown = proof.value;
    if (!shown || busy.value) return undefined;
    const { id, revision, record, template } = shown;
    const plain = wanted.map(({ id: its, change, label }) => ({ id: its, change, label }));
    const subject = { record: record.id, template: template.id, ...(choices ?? shown.choices) };
    const refused = await show(() => ask(subject, { production: id, revision, changes: plain }));
    // Somebody else went on with it: it is shown as it is now.
    if (refused?.status === 409) await load(record.id, template.id);
    return refused;
  }

  /** Chooses otherwise for a document in hand. Gives why it was refused. */
  const choose = (choice: Chosen): Promise<ApiProblem | undefined> =>
    changeTo(changes.value, { ...proof.value?.choices, ...choice });

  /** Makes a change; it takes the place of an earlier one of the same thing. Gives why it was refused. */
  async function make(change: WantedChange['change'], label: string): Promise<ApiProblem | undefined> {
    const before = changes.value;
    const refused = await changeTo([...before, { id: crypto.randomUUID(), change, label }]);
    if (!refused) [done.value, undone.value] = [[...done.value, before], []];
    return refused;
  }

  /** Takes one change back. */
  async function takeBack(id: string): Promise<ApiProblem | undefined> {
    const before = changes.value;
    const refused = await changeTo(before.filter((each) => each.id !== id));
    if (!refused) [done.value, undone.value] = [[...done.value, before], []];
    return refused;
  }

  async function undo(): Promise<ApiProblem | undefined> {
    const [to, now] = [done.value.at(-1), changes.value];
    if (!to) return undefined;
    const refused = await changeTo(to);
    if (!refused) [done.value, undone.value] = [done.value.slice(0, -1), [...undone.value, now]];
    return refused;
  }

  async function redo(): Promise<ApiProblem | undefined> {
    const [to, now] = [undone.value.at(-1), changes.value];
    if (!to) return undefined;
    const refused = await changeTo(to);
    if (!refused) [done.value, undone.value] = [[...done.value, now], undone.value.slice(0, -1)];
    return refused;
  }

  /** Opens the workings of a figure or value; without an id, none. */
  async function explain(id: string | undefined): Promise<void> {
    const production = proof.value?.id;
    if (id === undefined || !production) {
      workings.value = undefined;
      return;
    }
    try {
      const loaded = await api('GET /productions/{id}/workings', {
        parameters: { id: production },
        query: { value: id },
      });
      if (proof.value?.id === production) workings.value = loaded;
    } catch {
      // A value that a newer proof does not have has no workings either.
      workings.value = undefined;
    }
  }

  function reset(): void {
    subject.value = '';
    newest++;
    near = [];
    loading.value = false;
    proof.value = undefined;
    problem.value = undefined;
    workings.value = undefined;
    filing.value = undefined;
    filingProblem.value = undefined;
    busy.value = false;
    asked.value = {};
    inHand.value = undefined;
    done.value = [];
    undone.value = [];
  }

  /** Leaves the proof: its filing goes on, and a proof that is opened next is a new one. */
  function leave(): void {
    const { [subject.value]: _left, ...others } = filings.value;
    filings.value = others;
    reset();
  }

  function skip(finding: Finding, reason: string): void {
    skips.value = { ...skips.value, [finding.id]: { reason, of: finding.sentence } };
  }

  function unskip(finding: Finding): void {
    const { [finding.id]: _gone, ...rest } = skips.value;
    skips.value = rest;
  }

  /** Files the proof that is shown, and follows the document until it is filed or has failed. */
  async function file(): Promise<void> {
    if (!proof.value || !mayFile.value) return;
    const { id: production, revision, record, template } = proof.value;
    busy.value = true;
    filingProblem.value = undefined;
    try {
      const begun = await api('POST /documents', {
        // A proof becomes one document, however often its filing is sent.
        key: `${production}-${revision}`,
        body: { production, revision, skips: skipped.value },
      });
      filing.value = { ...begun, state: 'preparing', reason: null, dueAt: null, stepsLeft: 0, isHeld: false };
      filings.value = { ...filings.value, [subject.value]: begun.id };
      skips.value = {};
      follow(begun.id);
    } catch (thrown) {
      filingProblem.value = asProblem(thrown);
      busy.value = false;
      if (filingProblem.value.status === 409 || filingProblem.value.status === 422) await load(record.id, template.id);
    }
  }

  function follow(id: string): void {
    const stop = followDocument(id, (document) => {
      if (filing.value?.id !== id) return stop();
      filing.value = progressOf(document);
      if (isEnded(document)) busy.value = false;
    });
  }

  return {
    proof,
    problem,
    loading,
    skipped,
    workings,
    explain,
    filing,
    filingProblem,
    busy,
    findings,
    openFindings,
    mayFile,
    isOpen,
    sendFor,
    lookAt,
    drawPages,
    pagesFailed,
    open,
    load,
    lookAgain,
    leave,
    inHand,
    choose,
    changes,
    make,
    takeBack,
    undo,
    redo,
    skip,
    unskip,
    file,
  };
});
