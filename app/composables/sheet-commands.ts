import { duplicateChosen, moveChosen, removeChosen, toggleList } from '~/editor/commands';
import { LINES } from '#core/record/schema';
import { PANELS } from '~/editor/kinds/panels';
import { outlineOf } from '~/editor/outline';
import { useCommandsStore, type ScreenCommand } from '~/stores/commands';

/** Lets everything that the sheet can do be found by name while it is open, and every block by its first words. */
export function useSheetCommands(): void {
  const sheet = useSheetStore();
  const draft = useDraftStore();
  const figures = useFiguresStore();
  const store = useCommandsStore();
  const inserts = PANELS.filter(({ insert }) => insert).map((panel): ScreenCommand => ({
    name: `Insert: ${(panel.insert!.words ?? panel.label).toLowerCase()}`,
    about: panel.insert!.keys ?? '',
    run: () => sheet.insertKind(panel),
  }));
  const mark = (name: string) => sheet.editor?.chain().focus().toggleMark(name).run();
  const acts: ScreenCommand[] = [
    { name: 'Insert: value', about: '=[', run: () => sheet.writeFormula() },
    { name: 'Insert: line table', about: 'of the lines', run: () => void sheet.insertTable(LINES) },
    { name: 'Insert: totals', about: '', run: () => (sheet.askingTotals = true) },
    { name: 'Insert: tax summary', about: '', run: () => void sheet.insertSchedule('tax summary') },
    { name: 'Insert: payment schedule', about: '', run: () => void sheet.insertSchedule('payment schedule') },
    { name: 'Find and replace', about: 'Ctrl F', run: () => (sheet.finding = true) },
    { name: 'Bold', about: 'Ctrl B', run: () => mark('bold') },
    { name: 'Italic', about: 'Ctrl I', run: () => mark('italic') },
    { name: 'Underline', about: 'Ctrl U', run: () => mark('underline') },
    { name: 'Quiet words', about: '', run: () => mark('quiet') },
    { name: 'Undo', about: 'Ctrl Z', run: sheet.undo },
    { name: 'Redo', about: 'Ctrl Y', run: sheet.redo },
    { name: 'Move the block up', about: 'Alt ↑', run: () => sheet.run(moveChosen(-1)) },
    { name: 'Move the block down', about: 'Alt ↓', run: () => sheet.run(moveChosen(1)) },
    { name: 'Duplicate the block', about: 'Ctrl D', run: () => sheet.run(duplicateChosen) },
    { name: 'Delete the block', about: 'Esc, then Delete', run: () => sheet.run(removeChosen) },
    { name: 'Make a list', about: 'Ctrl Shift 8', run: () => sheet.run(toggleList('bulletList')) },
    { name: 'Make a numbered list', about: 'Ctrl Shift 7', run: () => sheet.run(toggleList('numberedList')) },
  ];
  const blocks = (): ScreenCommand[] =>
    draft.template
      ? outlineOf(draft.template.layout, figures.page?.notes)
          .filter(({ words }) => words !== '')
          .map(({ id, words, kind }) => ({ name: words, about: kind.toLowerCase(), run: () => sheet.choose(id) }))
      : [];
  store.commands = () => [...acts, ...inserts, ...blocks()];
  onScopeDispose(() => (store.commands = () => []));
}
