import { LINES } from '../record/schema';
import type { Meaning } from '../formula/meanings';
import { Checker, type CheckContext, type Checked, type Diagnostic } from './check';
import { dayOf } from '../formula/date';
import {
  FIGURE_TYPE_WORDS,
  MEANING_TYPES,
  type FigureSheet,
  type FigureType,
  type LookupTable,
  type TableColumnType,
} from './figure';
import { sheetFormulas, type SheetFormula } from './formulas';
import { FUNCTIONS } from '../formula/functions';
import { RESERVED } from './names';
import { isNumeric, typeInWords, type Type } from '../formula/type';

/** A figure or list of a sheet, checked. */
export interface CheckedFigure {
  key: string;
  /** What is wrong with its formula. */
  diagnostics: Diagnostic[];
  /** What is wrong with the figure besides its formula: its name, its meaning. */
  problems: string[];
  /** Keys of the figures and lists it is computed from directly. */
  uses: string[];
  /** Keys of those computed from it directly. */
  usedBy: string[];
}

/** What checking a sheet found, figure by figure, by their keys: `net_total`, `tax_rows.base`. */
export interface CheckedSheet {
  figures: Readonly<Record<string, CheckedFigure>>;
  /** What is wrong with the sheet as a whole: its currency, its sums. */
  problems: string[];
}

/** Checks every formula of a sheet, and the sheet as a whole, without data. */
export function checkSheet(context: CheckContext, checker = new Checker(context)): CheckedSheet {
  const { sheet } = context;
  const formulas = sheetFormulas(sheet);
  const checked = formulas.map((each) => ({ each, result: checkFormula(each, checker) }));
  const uses = new Map(checked.map(({ each, result }) => [each.key, [...new Set(result.uses.map(({ key }) => key))]]));
  const cycles = cyclesIn(uses);
  const figures: Record<string, CheckedFigure> = {};
  for (const { each, result } of checked) {
    const { key, formula } = each;
    const cycle = cycles.get(key);
    const circular = cycle ? [{ from: 0, to: formula.length, message: circleWords(key, cycle) }] : [];
    figures[key] = {
      key,
      diagnostics: [...result.diagnostics, ...wrongType(each, result), ...circular],
      problems: [...nameProblems(each, formulas, checker), ...meaningProblems(each, formulas)],
      uses: uses.get(key)!,
      usedBy: [...uses].filter(([, used]) => used.includes(key)).map(([user]) => user),
    };
  }
  return { figures, problems: sheetProblems(sheet, checker) };
}

function checkFormula({ formula, list }: SheetFormula, checker: Checker): Checked {
  return checker.formula(formula, checker.itemOf(list));
}

/** Members of circles of figures, in order of use, for each figure in one. */
function cyclesIn(uses: ReadonlyMap<string, readonly string[]>): Map<string, string[]> {
  const cycles = new Map<string, string[]>();
  const finished = new Set<string>();
  const visit = (key: string, path: string[]) => {
    const at = path.indexOf(key);
    if (at !== -1) {
      const members = path.slice(at);
      members.forEach((member, position) => {
        if (!cycles.has(member)) cycles.set(member, [...members.slice(position), ...members.slice(0, position)]);
      });
      return;
    }
    if (finished.has(key)) return;
    for (const next of uses.get(key) ?? []) visit(next, [...path, key]);
    finished.add(key);
  };
  for (const key of uses.keys()) visit(key, []);
  return cycles;
}

function circleWords(key: string, members: readonly string[]): string {
  if (members.length === 1) return `“${key}” is computed from itself.`;
  return `“${key}” is computed from itself, by way of ${members
    .slice(1)
    .map((member) => `“${member}”`)
    .join(', ')}.`;
}

function wrongType({ figure, derived, formula }: SheetFormula, { type, diagnostics }: Checked): Diagnostic[] {
  if (diagnostics.length > 0 || type.is === 'unknown') return [];
  const whole = { from: 0, to: formula.length };
  if (derived) {
    if (type.is === 'list') return [];
    return [{ ...whole, message: `“${derived.label}” is a list, but its formula gives ${typeInWords(type)}.` }];
  }
  if (!figure || gives(type, figure.type)) return [];
  return [
    {
      ...whole,
      message: `“${figure.label}” should be ${FIGURE_TYPE_WORDS[figure.type]}, but its formula gives ${typeInWords(type)}.`,
    },
  ];
}

function gives(type: Type, declared: FigureType): boolean {
  switch (declared) {
    case 'amount':
    case 'price':
      return type.is === 'money' || (type.is === 'number' && type.zero === true);
    case 'number':
    case 'percent':
      return isNumeric(type);
    default:
      return type.is === declared;
  }
}

/** What is wrong with a name for a figure or list, in a sentence; undefined if nothing is. */
export function refuseName(name: string): string | undefined {
  if (name === '') return 'A figure needs a name.';
  if (!/^[A-Za-z_][A-Za-z_0-9]*$/.test(name))
    return `“${name}” cannot be a name: take letters, digits and _, and a letter first.`;
  if (name.startsWith('__')) return `“${name}” cannot be a name: it may begin with one _ at most.`;
  if (/^(and|or|not|in|true|false)$/i.test(name)) return `“${name}” is a word of the formulas and cannot be a name.`;
  return RESERVED.includes(name) ? `“${name}” has a meaning of its own in formulas and cannot be a name.` : undefined;
}

/** A figure that is called as a function is would be read as one as soon as a bracket follows it. */
function refuseFunctionName(name: string): string | undefined {
  return FUNCTIONS.has(name.toUpperCase())
    ? `“${name}” is the name of a function; take another one, such as “${name}_figure”.`
    : undefined;
}

function nameProblems(
  { key, list, figure, derived }: SheetFormula,
  all: readonly SheetFormula[],
  checker: Checker,
): string[] {
  const name = (figure ?? derived)!.name;
  const refused = refuseName(name) ?? refuseFunctionName(name);
  if (refused) return [refused];
  if (all.filter((each) => each.key === key).length > 1) return [`There are two figures called “${name}”.`];
  if (list !== undefined) {
    const own = checker.itemOf(list);
    return own?.type(name) ? [`The ${own.label} has a field “${name}” already; take another name.`] : [];
  }
  const { world } = checker;
  return name === world.record || world.roots.has(name) ? [`“${name}” is taken already; choose another name.`] : [];
}

/** Where a meaning may stand: on the document, on lines, or on the rows of a derived list. */
type MeaningPlace = 'document' | 'lines' | 'rows';

/** Places of the meanings that are not, or not only, for a figure of the document. */
const MEANING_PLACES: Readonly<Partial<Record<Meaning, readonly MeaningPlace[]>>> = {
  'line-net': ['lines', 'rows'],
  'tax-base': ['rows'],
  'tax-amount': ['rows'],
  'tax-category': ['lines', 'rows'],
  'tax-rate': ['lines', 'rows'],
  'preceding-invoice': ['rows'],
  'prepaid-base': ['rows'],
  'prepaid-tax': ['rows'],
  'credited-tax': ['rows'],
  allowances: ['document', 'rows'],
  charges: ['document', 'rows'],
  cost: ['document', 'lines', 'rows'],
  margin: ['document', 'lines', 'rows'],
};

const PLACE_WORDS: Readonly<Record<MeaningPlace, string>> = {
  document: 'a figure of the document',
  lines: 'a figure of a line',
  rows: 'a column of a list',
};

const placesOf = (meaning: Meaning): readonly MeaningPlace[] => MEANING_PLACES[meaning] ?? ['document'];

/** Whether a meaning fits where a figure stands: BT-131 on lines, BT-116 and BT-117 on tax rows, most others once on the document. */
export function meaningFits(meaning: Meaning, list: string | undefined): boolean {
  return placesOf(meaning).includes(list === undefined ? 'document' : list === LINES ? 'lines' : 'rows');
}

function meaningProblems({ figure, list }: SheetFormula, all: readonly SheetFormula[]): string[] {
  const meaning = figure?.meaning;
  if (!meaning) return [];
  if (!meaningFits(meaning, list)) {
    const places = placesOf(meaning)
      .map((place) => PLACE_WORDS[place])
      .join(' or ');
    return [`The meaning “${meaning}” does not belong here: it is for ${places}.`];
  }
  const type = MEANING_TYPES[meaning] ?? 'amount';
  if (figure.type !== type) return [`A figure with the meaning “${meaning}” is ${FIGURE_TYPE_WORDS[type]}.`];
  const twins = all.filter((each) => each.figure?.meaning === meaning && each.list === list);
  return twins.length > 1
    ? [`The meaning “${meaning}” is given to ${twins.length} figures; one figure can have it.`]
    : [];
}

function sheetProblems(sheet: FigureSheet, checker: Checker): string[] {
  const problems: string[] = [];
  const currency = checker.formula(sheet.currency);
  if (currency.diagnostics[0]) problems.push(`The currency: ${currency.diagnostics[0].message}`);
  else if (currency.type.is !== 'text' && currency.type.is !== 'unknown')
    problems.push('The currency is a text, such as "EUR".');
  for (const { column, figure } of sheet.sums) {
    const { type, diagnostics } = checker.formula(column);
    if (diagnostics[0]) problems.push(`The sum of ${column}: ${diagnostics[0].message}`);
    else if (type.is === 'list' ? type.of.is !== 'money' && type.of.is !== 'unknown' : type.is !== 'unknown')
      problems.push(`The sum of ${column}: this is ${typeInWords(type)}, not a column of amounts.`);
    if (!checker.world.figures.has(figure))
      problems.push(`The sum of ${column} belongs to “${figure}”, which is no figure of the document.`);
  }
  return [...problems, ...(sheet.tables ?? []).flatMap((table) => tableProblems(table, sheet.tables!))];
}

function tableProblems(table: LookupTable, all: readonly LookupTable[]): string[] {
  const { name, label, columns, rows } = table;
  const problems: string[] = [];
  const refused = refuseName(name);
  if (refused) problems.push(refused);
  if (all.filter((each) => each.name === name).length > 1) problems.push(`There are two tables called “${name}”.`);
  for (const column of columns) {
    const wrong = refuseName(column.name);
    if (wrong) problems.push(`The table “${label}”: ${wrong}`);
    if (columns.filter((each) => each.name === column.name).length > 1)
      problems.push(`The table “${label}” has two columns called “${column.name}”.`);
  }
  rows.forEach((row, at) =>
    columns.forEach((column, position) => {
      const fault = cellFault(row[position] ?? '', column.type);
      if (fault) problems.push(`The table “${label}”, row ${at + 1}: ${fault}`);
    }),
  );
  return problems;
}

function cellFault(source: string, type: TableColumnType): string | undefined {
  if (source.trim() === '' || type === 'text') return undefined;
  if (type === 'date') return dayOf(source) === undefined ? `“${source}” is not a date such as 2026-11-23.` : undefined;
  return /^-?\d+(\.\d+)?$/.test(source) ? undefined : `“${source}” is not a number.`;
}
