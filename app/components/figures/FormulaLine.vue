<script setup lang="ts">
import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  completionStatus,
  startCompletion,
  type CompletionContext,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { setDiagnostics, type Diagnostic as EditorDiagnostic } from '@codemirror/lint';
import { EditorState, Prec } from '@codemirror/state';
import { EditorView, keymap, placeholder } from '@codemirror/view';
import type { Completion } from '#core/sheet/complete';
import type { FormulaState } from '#core/sheet/view';

/** A formula being written: highlighted, completed and checked as it is typed, with its value for the current record. */
const { source, list, row, label } = defineProps<{ source: string; list?: string; row: number; label: string }>();
const emit = defineEmits<{ typed: [source: string]; done: []; left: []; help: [] }>();

const workshop = useWorkshop();
const host = useTemplateRef<HTMLElement>('host');
const state = shallowRef<FormulaState>();
/** Mistakes are told once a person stops typing; half a name is not a mistake yet. */
const settled = refDebounced(state, 500);
const firstFault = computed(() => (state.value?.diagnostics.length ? settled.value?.diagnostics[0] : undefined));
let view: EditorView | undefined;
let newest = 0;

async function look(): Promise<void> {
  const mine = ++newest;
  const checked = await workshop.typed(view?.state.doc.toString() ?? source, list, row);
  if (mine !== newest || !view) return;
  state.value = checked;
  const { length } = view.state.doc;
  const marks = checked.diagnostics.map(({ from, to, message }): EditorDiagnostic => ({
    from: Math.min(from, length),
    to: Math.min(to, length),
    message,
    severity: 'error',
  }));
  view.dispatch(setDiagnostics(view.state, marks));
}

// What it gives follows the record and the figures that it is written over.
const figures = useFiguresStore();
watch(
  () => figures.view,
  () => void look(),
);

async function complete(context: CompletionContext) {
  const typed = context.matchBefore(/[A-Za-z_][\w]*|[.["]/);
  if (!typed && !context.explicit) return null;
  const { from, options } = await workshop.completions(context.state.doc.toString(), context.pos, list);
  if (context.aborted || options.length === 0) return null;
  return { from, options: options.map(option), validFor: /^\w*$/ };
}

function option({ insert, label: shown, kind, detail, help }: Completion) {
  return {
    label: shown,
    apply: insert,
    type: kind,
    detail,
    info: help && help !== shown ? help : undefined,
    boost: BOOST[kind],
  };
}
const BOOST: Record<Completion['kind'], number> = { value: 3, field: 2, figure: 2, list: 1, function: 0, word: -1 };

/** Puts the suggestion of the first mistake in its place. */
function mend(): void {
  const fault = firstFault.value;
  if (!view || !fault?.fix) return;
  view.dispatch({ changes: { from: fault.from, to: fault.to, insert: fault.fix } });
  view.focus();
}

const keys = Prec.highest(
  keymap.of([
    { key: 'Tab', run: acceptCompletion },
    { key: 'Enter', run: (each) => completionStatus(each.state) !== 'active' && (emit('done'), true) },
    { key: 'Escape', run: (each) => completionStatus(each.state) === null && (emit('left'), true) },
    { key: 'Ctrl-Space', run: startCompletion },
    { key: 'F1', run: () => (emit('help'), true) },
  ]),
);

onMounted(() => {
  view = new EditorView({
    parent: host.value!,
    state: EditorState.create({
      doc: source,
      selection: { anchor: source.length },
      extensions: [
        keys,
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        closeBrackets(),
        bracketMatching(),
        formulaLanguage(),
        autocompletion({ override: [complete], icons: false, maxRenderedOptions: 60 }),
        EditorView.lineWrapping,
        placeholder('Write a formula'),
        EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false' }),
        EditorView.updateListener.of((update) => {
          if (!update.docChanged) return;
          emit('typed', update.state.doc.toString());
          void look();
        }),
      ],
    }),
  });
  view.focus();
  void look();
});
onBeforeUnmount(() => view?.destroy());
watch([() => list, () => row], look);
watch(
  () => source,
  (next) => {
    if (!view || next === view.state.doc.toString()) return;
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: next } });
  },
);
</script>

<template>
  <div class="formula-line">
    <div class="line">
      <span class="sign" aria-hidden="true">=</span>
      <div ref="host" class="host"></div>
      <button
        v-tooltip.left="'Formula help (F1)'"
        type="button"
        class="help"
        aria-label="Formula help"
        @click="emit('help')"
      >
        ?
      </button>
    </div>
    <p v-if="firstFault" class="fault" role="status">
      {{ firstFault.message }}
      <button v-if="firstFault.fix" type="button" @click="mend">Use {{ firstFault.fix }}</button>
    </p>
    <p v-else-if="state?.value" class="live" role="status">
      <span class="quiet">{{ state.type }}{{ list ? `, here for row ${row + 1}` : '' }}</span>
      <strong :class="{ failed: state.value.failed }">{{ state.value.text }}</strong>
    </p>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: start;
  background: var(--sheet);
  border: 1px solid var(--verdigris);
  border-radius: 3px;
  box-shadow: 0 0 0 2px var(--verdigris-50);
}
.sign {
  padding: 6px 2px 6px 10px;
  color: var(--ink-quiet);
  font: 13px/20px var(--mono);
}
.help {
  align-self: stretch;
  width: 30px;
  background: none;
  border: 0;
  border-left: 1px solid var(--hairline);
  color: var(--verdigris);
  font-weight: 600;
  cursor: pointer;
}
.host :deep(.cm-editor) {
  outline: none;
}
.host :deep(.cm-scroller) {
  font: 13px/20px var(--mono);
}
.host :deep(.cm-content) {
  padding: 6px 4px;
}
.host :deep(.cm-line) {
  padding: 0 4px;
}
.host :deep(.cm-lintRange-error) {
  background: none;
  text-decoration: underline wavy var(--brick) 1px;
  text-underline-offset: 3px;
}
.fault,
.live {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin: 6px 2px 0;
  font-size: 12px;
}
.fault {
  justify-content: flex-start;
  color: var(--brick);
}
.fault button {
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  font: 500 12px/18px var(--sans);
  text-decoration: underline;
  white-space: nowrap;
  cursor: pointer;
}
.live strong {
  border-bottom: 3px double var(--brass);
  font-weight: 600;
}
.failed {
  color: var(--brick);
}
</style>

<style>
.formula-line .cm-tooltip.cm-tooltip-autocomplete {
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  box-shadow: var(--sheet-shadow);
}
.formula-line .cm-tooltip.cm-tooltip-autocomplete > ul {
  max-height: 216px;
  font: 12px/18px var(--mono);
}
.formula-line .cm-tooltip.cm-tooltip-autocomplete > ul > li {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  min-width: 260px;
  padding: 3px 10px;
}
.formula-line .cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected] {
  background: var(--verdigris-50);
  color: var(--ink);
}
.formula-line .cm-tooltip-autocomplete .cm-completionMatchedText {
  color: var(--verdigris);
  font-weight: 600;
  text-decoration: none;
}
.formula-line .cm-tooltip-autocomplete .cm-completionDetail {
  margin: 0;
  color: var(--ink-quiet);
  font: italic 12px/18px var(--sans);
}
.formula-line .cm-tooltip.cm-completionInfo {
  max-width: 280px;
  padding: 8px 10px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  box-shadow: var(--sheet-shadow);
  font: 12px/17px var(--sans);
}
.formula-line .cm-tooltip.cm-tooltip-lint {
  max-width: 360px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  font: 12px/17px var(--sans);
}
</style>
