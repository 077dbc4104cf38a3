import { calledRecord } from '#core/record/layout';
import { useMeStore } from '~/stores/me';

/** What undoing belongs to while it is written in: those have a history of their own, or lead to this one. */
const WRITTEN_IN = '.cm-editor, input, select, textarea, .sheet-text';

/** What the screens of a draft have in common: its sheet and its figure sheet work on it, with the values of one record. */
export function useDraftScreen() {
  const draft = useDraftStore();
  const figures = useFiguresStore();
  const changeQuery = useChangeQuery();
  const me = useMeStore();

  draft.hold();
  onBeforeUnmount(draft.close);
  useEventListener(window, 'online', draft.save);
  useEventListener(window, 'pagehide', draft.keep);
  useEventListener('keydown', (event) => {
    if (!(event.ctrlKey || event.metaKey) || event.defaultPrevented) return;
    if ((event.target as HTMLElement).closest(WRITTEN_IN)) return;
    const key = event.key.toLowerCase();
    if (key !== 'z' && key !== 'y') return;
    // The browser has a history of its own of what was typed on the sheet, wherever the focus is.
    event.preventDefault();
    if (key === 'z' && !event.shiftKey) figures.undo();
    else figures.redo();
  });

  const barred = computed(() => me.mayNot('publish'));
  const isChanged = computed(() => draft.isDraft || draft.past.length > 0);
  const mayPublish = computed(() => !barred.value && isChanged.value && figures.faults.length === 0);
  const recordType = computed(() => draft.template?.record.type);
  const shownName = computed(() => {
    if (!figures.shown || !draft.opened) return '';
    return figures.isSample ? 'Sample record' : calledRecord(figures.shown.record, draft.opened.schema);
  });

  async function chooseRecord(id: string): Promise<void> {
    await changeQuery({ record: id }, 'replace');
    await figures.choose(id);
  }

  return { barred, mayPublish, recordType, shownName, chooseRecord };
}
