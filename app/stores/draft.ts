import { defineStore } from 'pinia';
import { canonicalJson } from '#core/shape/canonical';
import type { Template } from '#core/template/template';
import type { Answer, ApiProblem } from '~/composables/api';
import { forgetDraft, keepDraft, keptDraft, windowId } from '~/composables/kept-draft';

/** A template as it is worked on, with what it is checked against. */
type OpenDraft = Omit<Answer<'GET /templates/{id}/draft'>, 'template' | 'revision'>;
/** Who else works on it. */
type Editor = Answer<'POST /templates/{id}/draft/editors'>['others'][number];

/** One state that can be gone back to, and what it was that changed it. */
interface Step {
  template: Template;
  words: string;
  /** What was open in it. */
  selected: string | undefined;
}

/** What a change brings besides the template: its words, and what is open before it. */
export type Change = Pick<Step, 'words'> &
  Partial<Pick<Step, 'selected'>> & {
    /** Changes that follow one another quickly under the same name are one step: what is typed in one go. */
    joins?: string;
  };

/** How long a change waits for the next one before it is saved, in milliseconds. */
const AT_REST = 600;
/** How soon a change follows another one to be of one step with it, in milliseconds. */
const AT_ONCE = 1_000;
/** How long a draft that changes all the time waits to be kept in the browser, in milliseconds. */
const KEPT_WITHIN = 1_000;
/** Pauses between tries while the server is away, in milliseconds; the last is used from then on. */
const PAUSES = [2_000, 5_000, 15_000];
/** How often the server is told that the draft is open, in milliseconds. */
const PRESENT_EVERY = 10_000;

/**
 * The draft that is worked on: its states, and how it is saved. Every change is kept in the browser at once, and saved on the server a
 * moment later. Whoever may not publish changes nothing but what they see.
 */
export const useDraftStore = defineStore('draft', () => {
  const opened = shallowRef<OpenDraft>();
  const template = shallowRef<Template>();
  const past = shallowRef<Step[]>([]);
  const future = shallowRef<Step[]>([]);
  /** What was just done, in words. */
  const announcement = ref<string>();
  const saving = ref<'saved' | 'saving' | 'away' | 'refused' | 'conflict' | 'barred'>('saved');
  /** Why it is not saved. */
  const problem = shallowRef<ApiProblem>();
  const others = shallowRef<Editor[]>([]);
  const busy = ref(false);

  let revision = 0;
  let saved: Template | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let presence: ReturnType<typeof setInterval> | undefined;
  let tries = 0;
  let underWay: Promise<void> | undefined;

  const isChanged = () => template.value !== saved;
  const parameters = () => ({ id: template.value!.id });
  /** Whether there is a draft beside what is published. */
  const isDraft = ref(false);
  /** How far its changes are from the server, in words. */
  const state = computed(
    () =>
      ({
        saved: isDraft.value ? 'Saved' : 'No changes',
        saving: 'Saving …',
        away: 'Not saved: no connection. Kept in this browser.',
        refused: `Not saved: ${problem.value?.detail ?? ''}`,
        conflict: 'Not saved: it was changed elsewhere.',
        barred: past.value.length > 0 ? 'Your changes are not kept.' : '',
      })[saving.value],
  );

  /** How many screens work on it: the sheet and the figure sheet have one draft and one history. */
  let screens = 0;
  /** A screen works on the draft until it closes it. */
  function hold(): void {
    screens++;
  }

  /** Opens a template's draft; one that is open already goes on. Whoever may not change it sees what is published. */
  async function load(templateId: string, mayChange: boolean): Promise<void> {
    const isSame = template.value?.id === templateId && mayChange === (saving.value !== 'barred');
    if (screens > 1 && isSame) return;
    await leave();
    const {
      template: loaded,
      revision: at,
      ...around
    } = mayChange
      ? await api('GET /templates/{id}/draft', { parameters: { id: templateId } })
      : { revision: 0, ...(await published(templateId)) };
    begin(loaded, at);
    [past.value, future.value, announcement.value] = [[], [], undefined];
    opened.value = around;
    saving.value = mayChange ? 'saved' : 'barred';
    if (!mayChange) return;
    bringBack(loaded);
    presence = setInterval(() => void tellPresence(), PRESENT_EVERY);
    void tellPresence();
  }

  async function published(templateId: string) {
    const { versionId, ...rest } = await api('GET /templates/{id}', { parameters: { id: templateId } });
    return { ...rest, versionId, base: versionId, editedBy: null, editedAt: null, schemaDigest: '' };
  }

  /** Goes on from what the server has. */
  function begin(loaded: Template, at: number): void {
    template.value = loaded;
    saved = loaded;
    revision = at;
    isDraft.value = at > 0;
    problem.value = undefined;
    tries = 0;
  }

  /** Goes on from another state that the server has; one's own can be gone back to. */
  function goOnFrom(loaded: Template, at: number, words: string, told = words, selected?: string): void {
    past.value = [...past.value, { template: template.value!, words, selected }];
    [future.value, announcement.value, saving.value] = [[], told, 'saved'];
    begin(loaded, at);
  }

  /** Changes that were not saved when the page was left are still in the browser. */
  function bringBack(loaded: Template): void {
    const kept = keptDraft(loaded.id);
    if (!kept) return;
    if (canonicalJson(kept.template) === canonicalJson(loaded)) return forgetDraft(loaded.id);
    // Where somebody else saved meanwhile, the server says so.
    revision = kept.revision;
    change(kept.template, { words: 'Changes brought back that were not saved' });
  }

  let last: { joins: string | undefined; at: number } | undefined;

  /** Takes a new state; the one before can be gone back to. */
  function change(next: Template, { words, selected, joins }: Change): void {
    const goesOn = joins !== undefined && joins === last?.joins && Date.now() - last.at < AT_ONCE;
    last = { joins, at: Date.now() };
    if (!goesOn) past.value = [...past.value, { template: template.value!, words, selected }];
    future.value = [];
    announcement.value = words;
    take(next);
  }

  /** Goes one step back. Gives what it came to. */
  const undo = (selected?: string) => step(past, future, (words) => `Undone: ${words}`, selected);
  const redo = (selected?: string) => step(future, past, (words) => words, selected);

  function step(
    from: typeof past,
    to: typeof past,
    told: (words: string) => string,
    selected: string | undefined,
  ): Step | undefined {
    const found = from.value.at(-1);
    if (!found) return undefined;
    last = undefined;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, { template: template.value!, words: found.words, selected }];
    announcement.value = told(found.words);
    take(found.template);
    return found;
  }

  function take(next: Template): void {
    template.value = next;
    if (saving.value === 'barred') return;
    if (!isChanged()) return forgetDraft(next.id);
    keepSoon();
    if (saving.value !== 'conflict') saveIn(AT_REST);
  }

  /** Keeps in the browser what the server does not have yet. */
  function keep(): void {
    const changed = template.value;
    if (changed && isChanged() && saving.value !== 'barred') keepDraft(changed.id, { template: changed, revision });
  }
  /** The same within a second, however quickly it is changed. */
  const keepSoon = useThrottleFn(keep, KEPT_WITHIN, true, false);

  function saveIn(milliseconds: number): void {
    clearTimeout(timer);
    if (saving.value !== 'away') saving.value = 'saving';
    timer = setTimeout(() => void save(), milliseconds);
  }

  /** Saves what is not saved yet; ends once it is, or cannot be. */
  async function save(): Promise<void> {
    clearTimeout(timer);
    await underWay;
    if (!template.value || !isChanged() || saving.value === 'conflict' || saving.value === 'barred') return;
    underWay = sendDraft(template.value).finally(() => (underWay = undefined));
    await underWay;
  }

  async function sendDraft(sent: Template): Promise<void> {
    if (saving.value !== 'away') saving.value = 'saving';
    try {
      const answer = await api('PUT /templates/{id}/draft', {
        parameters: { id: sent.id },
        body: { revision, template: sent },
      });
      savedAs(sent, answer.revision);
    } catch (thrown) {
      notSaved(asProblem(thrown));
    }
  }

  function savedAs(sent: Template, at: number): void {
    [saved, revision, tries] = [sent, at, 0];
    isDraft.value = true;
    problem.value = undefined;
    saving.value = 'saved';
    if (!isChanged()) return forgetDraft(sent.id);
    keepDraft(sent.id, { template: template.value!, revision });
    saveIn(AT_REST);
  }

  function notSaved(refused: ApiProblem): void {
    problem.value = refused;
    keep();
    if (refused.status === 409) saving.value = 'conflict';
    else if (refused.status === 0 || refused.status >= 500) {
      saving.value = 'away';
      saveIn(PAUSES[Math.min(tries++, PAUSES.length - 1)]!);
    } else saving.value = 'refused';
  }

  /** What somebody else made of the draft meanwhile. */
  const theirs = computed(() => (saving.value === 'conflict' ? problem.value?.draft : undefined));

  /** Takes the draft as somebody else left it; one's own state can be gone back to. */
  function takeTheirs(): void {
    const draft = theirs.value;
    if (!draft) return;
    goOnFrom(draft.template, draft.revision, 'Theirs taken');
    forgetDraft(draft.template.id);
  }

  /** Keeps one's own state as a new template. Gives its id. */
  async function keepAsNew(): Promise<string | undefined> {
    const mine = template.value!;
    const kept = await attempted(() => api('POST /drafts', { body: { template: mine } }));
    if (!kept) return undefined;
    forgetDraft(mine.id);
    saved = mine;
    saving.value = 'saved';
    return kept.id;
  }

  /** Publishes the draft. `over`: the version that is replaced, where another one was published meanwhile. */
  async function publish(body: { note?: string; reason?: string; over?: string }): Promise<ApiProblem | undefined> {
    await save();
    if (saving.value !== 'saved' || !isDraft.value) return problem.value;
    busy.value = true;
    const sent = template.value!;
    const publishing = api('POST /templates/{id}/versions', { parameters: parameters(), body: { revision, ...body } });
    // What is changed meanwhile is saved as a draft of the new version.
    underWay = publishing.then(
      () => undefined,
      () => undefined,
    );
    try {
      const { version, versionId } = await publishing;
      [saved, revision, isDraft.value] = [sent, 0, false];
      opened.value = { ...opened.value!, version, versionId, base: versionId };
      announcement.value = `Published as version ${version}`;
      return undefined;
    } catch (thrown) {
      return asProblem(thrown);
    } finally {
      busy.value = false;
    }
  }

  /** Throws the draft away: what is published is what is worked on. It can be undone. */
  async function throwAway(selected?: string): Promise<void> {
    await save();
    const { id } = parameters();
    const done = await attempted(async () => {
      await api('DELETE /templates/{id}/draft', { parameters: { id }, query: { revision } });
      return published(id);
    });
    if (done) goOnFrom(done.template, 0, 'Draft thrown away', undefined, selected);
  }

  async function attempted<T>(act: () => Promise<T>): Promise<T | undefined> {
    busy.value = true;
    try {
      return await act();
    } catch (thrown) {
      problem.value = asProblem(thrown);
      return undefined;
    } finally {
      busy.value = false;
    }
  }

  /** Says that the draft is open here; takes what somebody else saved where nothing of one's own is waiting. */
  async function tellPresence(leaves = false): Promise<void> {
    if (!template.value) return;
    try {
      const seen = await callServer('POST /templates/{id}/draft/editors', {
        parameters: parameters(),
        body: { window: windowId(), leaves },
      });
      if (leaves) return;
      others.value = seen.others;
      if (seen.schemaDigest !== opened.value?.schemaDigest) await learnFields();
      if (seen.revision > revision && saving.value === 'saved' && !isChanged()) await takeNewest();
    } catch {
      // It is told the next time.
    }
  }

  /** The CRM has other fields than when the draft was opened: from now on it is checked against those. */
  async function learnFields(): Promise<void> {
    const asked = template.value!.id;
    const {
      template: _,
      revision: __,
      ...around
    } = await api('GET /templates/{id}/draft', { parameters: { id: asked } });
    if (template.value?.id === asked) opened.value = around;
  }

  async function takeNewest(): Promise<void> {
    const {
      template: newest,
      revision: at,
      editedBy,
    } = await api('GET /templates/{id}/draft', { parameters: parameters() });
    if (isChanged() || at <= revision) return;
    const who = editedBy ?? 'Somebody else';
    goOnFrom(
      newest,
      at,
      `Changes of ${editedBy ?? 'somebody else'}`,
      `${who} changed this draft: it is shown as it is now.`,
    );
  }

  /** Leaves the draft with the last screen that works on it: what is not saved yet is saved. */
  async function close(): Promise<void> {
    screens = Math.max(0, screens - 1);
    if (screens === 0) await leave();
  }

  async function leave(): Promise<void> {
    clearInterval(presence);
    if (presence !== undefined) void tellPresence(true);
    presence = undefined;
    await save();
    clearTimeout(timer);
    others.value = [];
    opened.value = undefined;
    template.value = undefined;
    saved = undefined;
  }

  return {
    opened,
    template,
    past,
    future,
    announcement,
    saving,
    state,
    isDraft,
    problem,
    theirs,
    others,
    busy,
    hold,
    load,
    change,
    keep,
    undo,
    redo,
    save,
    takeTheirs,
    keepAsNew,
    publish,
    throwAway,
    close,
  };
});
