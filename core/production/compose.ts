import type { Meaning } from '../formula/meanings';
import type { Cell } from '../sheet/cell';
import { dayOf } from '../formula/date';
import { asCondition } from '../formula/functions';
import type { RegisteredDocument } from '../formula/functions/register';
import { meaningsOf } from '../sheet/figure-meanings';
import { checkerFor } from '../sheet/checkers';
import { Sheet } from '../sheet/sheet';
import { error, formatValue, type Value } from '../formula/value';
import type { Workings } from '../sheet/workings';
import { isCurrencyCode } from '../money/currency';
import { Decimal } from '../money/decimal';
import { LATIN_DIGITS, numberSymbols } from '../money/number-symbols';
import type { MadeChange } from './document-change';
import { changeNote } from './change-note';
import { partsOf, type DocumentParts } from './document-parts';
import { changedSince } from './findings/changed-since';
import { failedCheck } from './findings/failed-check';
import { failedStep } from './findings/failed-step';
import { failedValue } from './findings/failed-value';
import { filedBefore } from './findings/filed-before';
import { overCredited } from './findings/over-credited';
import { gatherFindings, type Finding } from './findings/finding';
import { lostChange } from './findings/lost-change';
import { noCurrency } from './findings/no-currency';
import { unfitRecord } from './findings/unfit-record';
import { untranslated } from './findings/untranslated';
import { own } from '../record/own';
import { calledByType, type RecordSchema } from '../record/schema';
import type { PictureField, RecordSnapshot } from '../record/snapshot';
import { usedChanges, usedDigest, type UsedValues } from '../record/used';
import { outcomePath } from '../record/value-path';
import { PrintedSum } from '../sheet/printed-sum';
import type { Answer } from '../template/asks';
import { assemble, wholeBlocks, type Assembled } from '../template/assemble';
import type { Block } from '../template/blocks';
import { checkContext } from '../template/check';
import { NoteWords } from '../template/noted';
import { textOfRuns, type Assets, type ComposedDocument } from '../template/composed';
import { splitPlaceholders } from '../template/placeholders';
import { documentRoots, numberToCome } from '../template/roots';
import type { Plan } from '../template/plan';
import type { Fits, Pins, Template } from '../template/template';
import type { PdfStandard, TemplateFile } from '../template/template-file';
import { INTERFACE_LOCALE } from '../words/interface';
import { phrase } from '../words/phrases';
import { answersOf, isAnswer, unanswered } from './answers';
import { priceBridge } from './bridge';
import type { Composition, OutputSettings } from './composition';
import type { Choices } from './production';
import { Compositor } from './compositor';
import { safeFileName } from './file-name';
import { composeSteps } from './plan-steps';
import { withChangedBlocks, withGivenValues, type LostChange } from './with-changes';
import { workBack, type WorkedBack } from './work-back';

/** What a document depends on besides its template and its record. */
export interface ComposeContext {
  schema: RecordSchema;
  /** The house styles and clauses that the template version holds on to. */
  pins: Pins;
  /** ISO 8601 day in the company's time zone. */
  issueDate: string;
  /** Chosen by the template's own formula where absent. */
  edition?: string;
  /** Instead of the edition's. */
  houseStyle?: string;
  /** The template's first plan where absent. */
  plan?: string;
  /** The series' serial and the number made from it; absent until filing has taken one. */
  number?: { serial: number; text: string };
  /** Documents filed for the record before. */
  registered?: readonly RegisteredDocument[];
  /** IANA name of the company's time zone. */
  timeZone?: string;
  /** Bytes of the template's files and of the record's pictures. */
  available?: Assets;
  /** A document to look at, marked as such on every page. */
  trial?: boolean;
  /** What was changed for this document alone. */
  changes?: readonly MadeChange[];
  /** The pictures and PDFs that were put in for it, by the SHA-256 of their bytes. */
  files?: Choices['files'];
  /** The record as it was when somebody looked at the document first, where it was otherwise: what that changes is told. */
  earlier?: RecordSnapshot;
  /** That it takes a number of its own, where it could be the next revision of what was filed before. */
  asNew?: boolean;
  /** Labels of the places that copies are kept at, by their ids. */
  places?: Readonly<Record<string, string>>;
}

/**
 * Composes a document: evaluates every condition and formula of the template over the record, unrolls its lists and
 * formats its values. Pure and deterministic: the same arguments give the same composition, and nothing is thrown for
 * what a record holds. Errors and blanks become findings and visible marks.
 */
export function compose(template: Template, snapshot: RecordSnapshot, context: ComposeContext): Composition {
  return composing(template, snapshot, context).composition;
}

/** A composition that can still be asked how its values came about. */
export interface Composing {
  composition: Composition;
  /** The workings of a figure or value by their id; made when asked for, since few are. */
  explain(id: string): Workings | undefined;
  /** The single values that would have a figure come to a wanted sum; undefined where it is no sum. */
  workBack(figure: string, wanted: Decimal): WorkedBack | undefined;
  /** What of its pages can be changed for this document alone. */
  parts(): DocumentParts;
  /** The workings of every figure and every printed value, by id: kept with a filed document. */
  explainAll(): Record<string, Workings>;
  /** Numbers and amounts of the document's figures as decimal text, by their names. */
  numbers(): Record<string, string>;
}

/** Composes a document, and keeps what it takes to explain it. `makeSheet`: of whoever composes for the same record again and again. */
export function composing(
  published: Template,
  snapshot: RecordSnapshot,
  without: ComposeContext,
  makeSheet = sheetOver,
): Composing {
  const { changes = [], pins, schema } = without;
  const template = withFiles(published, without.files);
  const given = withGivenValues(
    snapshot,
    changes.filter(({ change }) => !isAnswer(change)),
    schema,
  );
  const said = answersOf(
    template.asks ?? [],
    changes.filter(({ change }) => isAnswer(change)),
    (formula) => sheetOver(assemble(template, pins, undefined), given.record, without).evaluate('ask', formula).value,
  );
  const context: AnsweredContext = { ...without, answers: said.answers };
  const edition = context.edition ?? chosenEdition(template, given.record, context);
  const own = noted(assemble(template, pins, edition, context.houseStyle), schema);
  const whole = (blocks: readonly Block[]) => wholeBlocks(blocks, template, pins, own.edition);
  const { assembled, lost, gone } = withChangedBlocks(own, changes, whole);
  const { earlier, ...otherwise } = without;
  const made = {
    changes,
    gone,
    lost: [...given.lost, ...said.lost, ...lost],
    before: earlier && compose(published, earlier, otherwise).used,
  };
  const composed = composingOf(assembled, given.record, context, makeSheet, made);
  return mixesDigits(composed.composition.document)
    ? composingOf(inLatinDigits(assembled), given.record, context, makeSheet, made)
    : composed;
}

/** A template with the files that were put in for one document among its own. */
const withFiles = (template: Template, files: ComposeContext['files']): Template =>
  files ? { ...template, files: { ...template.files, ...files } } : template;

/** What was changed for a document, what of it had nothing to change, and what changed by itself. */
interface Made {
  changes: readonly MadeChange[];
  gone: ReadonlyMap<string, readonly MadeChange[]>;
  lost: readonly LostChange[];
  /** What was used of the record when it was looked at first, where it was another one then. */
  before?: UsedValues;
}

/** The same with words for each margin note. */
function noted(assembled: Assembled, schema: RecordSchema): Assembled {
  const { template, houseStyle } = assembled;
  const checker = checkerFor(checkContext(template, schema, [houseStyle]));
  const words = new NoteWords(checker);
  const { layout } = template;
  const { header, followingHeader, footer, body } = layout;
  return {
    ...assembled,
    template: {
      ...template,
      layout: {
        ...layout,
        header: words.noted(header),
        followingHeader: followingHeader && words.noted(followingHeader),
        footer: words.noted(footer),
        body: words.noted(body),
      },
    },
  };
}

/** With what is said to everything that the template asks for. */
interface AnsweredContext extends ComposeContext {
  answers?: readonly Answer[];
}

function composingOf(
  assembled: Assembled,
  snapshot: RecordSnapshot,
  context: AnsweredContext,
  makeSheet: SheetMaker,
  made: Made,
): Composing {
  const composer = new DocumentComposer(assembled, makeSheet(assembled, snapshot, context), context, made);
  return {
    composition: composer.compose(),
    workBack: (figure, wanted) => workBack(sheetOver(assembled, snapshot, context), figure, wanted),
    parts: () => partsOf(assembled.template.layout.body, composer.by),
    explain: (id) => composer.by.explain(id),
    explainAll: () => composer.by.explainAll(),
    numbers: () => numbersOf(composer.by.sheet),
  };
}

function numbersOf(sheet: Sheet): Record<string, string> {
  return Object.fromEntries(
    sheet.input.sheet.document.flatMap(({ name }) => {
      const { value } = sheet.figure(name);
      return 'value' in value && value.value instanceof Decimal ? [[name, value.value.toFixed()]] : [];
    }),
  );
}

/**
 * Whether a document whose numbers are in digits of its own language prints other ones beside them: those of its number, an account
 * or a product's name, which stay as they are.
 */
function mixesDigits({ digits, header, followingHeader, body, footer }: ComposedDocument): boolean {
  if (digits === LATIN_DIGITS) return false;
  let mixes = false;
  JSON.stringify([header, followingHeader, body, footer], (key, value: unknown) => {
    mixes ||= key === 'text' && typeof value === 'string' && /[0-9]/.test(value);
    return value;
  });
  return mixes;
}

/** The same edition with its numbers in Latin digits. */
function inLatinDigits(assembled: Assembled): Assembled {
  const locale = new Intl.Locale(assembled.edition.locale, { numberingSystem: 'latn' }).toString();
  return { ...assembled, edition: { ...assembled.edition, locale } };
}

/** Why a template is not for a record, in its own sentence; undefined where it is. */
export function unfitFor(template: Template, snapshot: RecordSnapshot, context: ComposeContext): string | undefined {
  if (!template.fits) return undefined;
  return unfitSentence(template.fits, sheetOver(assemble(template, context.pins, undefined), snapshot, context));
}

/** The same over the figures of a record. What cannot be told is not for it. */
function unfitSentence({ formula, sentence }: Fits, sheet: Sheet): string | undefined {
  if (asCondition(sheet.evaluate('fits', formula).value) === true) return undefined;
  return sentenceOver(sheet, sentence);
}

/** A sentence for the person at the desk, with values in it. */
function sentenceOver(sheet: Sheet, source: string): string {
  return splitPlaceholders(source)
    .map((part) =>
      part.kind === 'text' ? part.text : formatValue(sheet.evaluate('sentence', part.formula).value, INTERFACE_LOCALE),
    )
    .join('');
}

/** The edition that the template's formula chooses for a record; undefined where it names none that there is. */
function chosenEdition(template: Template, snapshot: RecordSnapshot, context: ComposeContext): string | undefined {
  if (template.edition === undefined) return undefined;
  const fallback = assemble(template, context.pins, undefined);
  const { value } = sheetOver(fallback, snapshot, context).evaluate('edition', template.edition);
  return value.type === 'text' ? value.value : undefined;
}

/** Makes the figures of a record for a document of it. */
type SheetMaker = (assembled: Assembled, snapshot: RecordSnapshot, context: AnsweredContext) => Sheet;

const sheetOver: SheetMaker = ({ template, edition, houseStyle }, snapshot, context) => {
  const { schema, issueDate, timeZone, registered, number, answers } = context;
  const { id, locale } = edition;
  return new Sheet({
    sheet: template.sheet,
    schema,
    snapshot,
    root: template.record.root,
    roots: documentRoots({
      company: houseStyle.company,
      issueDate,
      edition: id,
      locale,
      number: number?.text,
      asks: template.asks,
      answers,
    }),
    locale,
    today: dayOf(issueDate),
    timeZone,
    registered,
    serial: number?.serial,
  });
};

/** For whoever composes for the same record again and again: while only words of a template are changed, its figures stay. */
export function lastSheet(): SheetMaker {
  let last: { snapshot: RecordSnapshot; schema: RecordSchema; of: string; sheet: Sheet } | undefined;
  return (assembled, snapshot, context) => {
    const { template, edition, houseStyle } = assembled;
    const { schema, issueDate, timeZone, registered, number, answers } = context;
    const of = JSON.stringify([
      template.sheet, template.record.root, houseStyle.company, edition.id, edition.locale, issueDate, timeZone, registered, number,
      template.asks, answers,
    ]); // prettier-ignore
    if (last?.snapshot !== snapshot || last.schema !== schema || last.of !== of)
      last = { snapshot, schema, of, sheet: sheetOver(assembled, snapshot, context) };
    return last.sheet;
  };
}

/** Languages that are written from right to left. */
const RIGHT_TO_LEFT = new Set(['ar', 'fa', 'he', 'ur']);

/** Composes one document: its parts, and what is found about it as a whole. */
class DocumentComposer {
  readonly by: Compositor;
  readonly template: Assembled['template'];
  readonly #plan: Plan;

  constructor(
    readonly assembled: Assembled,
    sheet: Sheet,
    readonly context: AnsweredContext,
    readonly made: Made,
  ) {
    this.template = assembled.template;
    this.by = new Compositor(sheet, assembled.edition.locale, context.available ?? {}, made);
    const { plans } = this.template;
    this.#plan = plans.find(({ id }) => id === context.plan) ?? plans[0]!;
  }

  compose(): Composition {
    const { by, template, assembled } = this;
    for (const change of this.made.lost) this.by.findings.push(lostChange(change));
    const { answers = [] } = this.context;
    for (const answer of answers) by.findings.push(...unanswered(answer));
    this.#checkFit();
    this.#checkCurrency();
    const titleRuns = by.placed('title', this.#plan.title, 'plan');
    const title = textOfRuns(titleRuns);
    const fileName = safeFileName(by.placedText('file name', this.#plan.fileName, 'plan'), 'pdf');
    const { logo, table } = assembled.houseStyle;
    by.around = {
      title: titleRuns,
      logo: { picture: by.drawn(logo.svg), alt: logo.alt },
      table,
      files: template.files ?? {},
    };
    const { layout } = template;
    const header = by.blocks(layout.header);
    const followingHeader = by.blocks(layout.followingHeader);
    const body = by.blocks(layout.body);
    const footer = by.blocks(layout.footer);
    const annexes = this.#annexes();
    const output = this.#output();
    this.#proveSums();
    this.#runChecks();
    this.#tellGaps();
    const steps = this.#steps();
    const meanings = meaningsOf(by.sheet);
    this.#lookBack(meanings);
    const figures = this.#figures();
    const used = Object.fromEntries(by.used);
    this.#tellChanged(used);
    return {
      document: this.#document(title, annexes.pages, { header, followingHeader, body, footer }),
      assets: by.assets,
      figures,
      bridge: priceBridge((meaning) => this.#withMeaning(meaning), INTERFACE_LOCALE),
      meanings,
      values: by.values,
      findings: gatherFindings(by.findings).map((finding) => this.#marked(finding)),
      fileName,
      title,
      currency: by.sheet.currency ?? null,
      edition: assembled.edition.id,
      plan: this.#plan.id,
      output,
      annexes: annexes.files,
      ...(answers.length > 0 && { answers }),
      used,
      usedDigest: usedDigest(used),
      leftOut: by.leftOut,
      changed: Object.fromEntries(this.made.changes.map(({ id }) => [id, [...(by.changed.get(id) ?? [])]])),
      ...this.#givenNotes(),
      steps,
      proved: { sums: by.provedSums },
    };
  }

  /** The margin notes of values that were given for this document, by the values that print them. */
  #givenNotes(): Pick<Composition, 'givenNotes'> {
    const notes = this.made.changes.flatMap((made) =>
      made.change.type === 'value'
        ? this.by.readersOf(new Set([made.change.path])).map((key) => [key, changeNote(made)] as const)
        : [],
    );
    return notes.length > 0 ? { givenNotes: Object.fromEntries(notes) } : {};
  }

  /** What is done once it is filed. What a step reads is not printed, so it does not count as used. */
  #steps(): Composition['steps'] {
    const { record } = this.template;
    const { schema, places = {}, number } = this.context;
    const composed = composeSteps(this.#plan.steps ?? [], this.by.sheet, {
      schema,
      type: record.type,
      places,
      ...(!number && { numberToCome: numberToCome(this.by.locale) }),
    });
    for (const fault of composed.faults)
      this.by.findings.push(fault.error?.path ? failedValue(fault.error, { block: 'plan' }) : failedStep(fault));
    return composed.steps;
  }

  #document(
    title: string,
    annexPages: number,
    parts: Pick<ComposedDocument, 'header' | 'followingHeader' | 'body' | 'footer'>,
  ): ComposedDocument {
    const { trial, issueDate } = this.context;
    const { houseStyle } = this.assembled;
    const { locale } = this.by;
    const { language, region } = new Intl.Locale(locale);
    const { fonts, type, colours, composition } = houseStyle;
    const { digits, decimal } = numberSymbols(locale);
    const watermark = trial ? phrase('Trial', locale) : this.#plan.pdf?.watermark;
    return {
      title,
      language,
      region,
      direction: RIGHT_TO_LEFT.has(language) ? 'rtl' : 'ltr',
      digits,
      decimal,
      date: issueDate,
      author: houseStyle.company.name ?? houseStyle.name,
      page: this.template.layout.page,
      style: { fonts, type, colours, composition },
      ...(watermark && { watermark }),
      annexPages,
      ...parts,
    };
  }

  /** The files to join to the end, and how many of their pages count. */
  #annexes(): { files: Composition['annexes']; pages: number } {
    const { annexes = [], files = {} } = this.template;
    const chosen = annexes.flatMap(({ id, label, file, counted }) => {
      const key = `annex ${id}`;
      const value = this.by.decides(key, file, id);
      const joined = ({ sha256, pages = 0, standard }: Joinable) => {
        this.#checkStandard(label, standard, id);
        return [{ label, sha256, pages, counted: counted ?? false }];
      };
      const ofTemplate = namesIn(value).flatMap((name) => {
        const pdf = own(files, name);
        if (pdf?.mediaType === 'application/pdf') return joined(pdf);
        this.by.fault(error(`The template has no PDF “${name}” to join as “${label}”.`), id, undefined, 'template');
        return [];
      });
      const ofRecord = filesIn(value).flatMap(({ sha256, mediaType, pages, standard, refused }) => {
        if (sha256 !== undefined && mediaType === 'application/pdf') return joined({ sha256, pages, standard });
        const reason =
          refused ?? (sha256 === undefined ? 'It was not read from the CRM.' : 'It is a picture, not a PDF.');
        this.by.fault(error(`A file of the record cannot be joined as “${label}”. ${reason}`), id);
        return [];
      });
      // Another file of the record is another document.
      if (ofRecord.length > 0)
        this.by.used.set(outcomePath('choice', key), ofRecord.map(({ sha256 }) => sha256).join());
      return [...ofTemplate, ...ofRecord];
    });
    for (const { sha256 } of chosen) {
      const asset = this.by.available[sha256];
      if (asset) this.by.assets[sha256] = asset;
    }
    return {
      files: chosen.map(({ label, sha256, pages }) => ({ label, sha256, pages })),
      pages: chosen.reduce((sum, { pages, counted }) => sum + (counted ? pages : 0), 0),
    };
  }

  /** What is joined to an archive has to be one itself (ISO 19005-2, 5): the template's own files are held to it where it is published. */
  #checkStandard(label: string, standard: PdfStandard | undefined, annex: string): void {
    const { label: plan, pdf } = this.#plan;
    if (pdf?.standard !== 'pdf/a-2b' || standard === 'pdf/a-2b') return;
    const sentence = `The plan “${plan}” makes a PDF/A, and “${label}”, which would be joined to it, is none. Save it as PDF/A-2b first, or choose another plan.`;
    this.by.fault(error(sentence), annex);
  }

  #output(): OutputSettings {
    const { standard, protection } = this.#plan.pdf ?? {};
    if (!protection) return standard ? { standard } : {};
    if (standard === 'pdf/a-2b') {
      // ISO 19005-2, 6.1.3: an archive cannot ask its readers for a password.
      this.by.fault(
        error('A PDF/A document cannot be protected: take the archive standard or the protection off the plan.'),
        'plan',
        undefined,
        'template',
      );
      return { standard };
    }
    const { password: formula, ...permissions } = protection;
    const password =
      formula === undefined ? undefined : this.by.printedText({ id: 'password', formula, block: 'plan' });
    return {
      ...(standard && { standard }),
      protection: { ...permissions, ...(password !== undefined && { password }) },
    };
  }

  /** Words that the edition does not say yet, or said before their source was changed. */
  #tellGaps(): void {
    const { gaps, absent, edition } = this.assembled;
    for (const { what, id } of absent) {
      this.by.fault(
        error(
          `The ${what} “${id}” is used by this template but is not there any more. Take it off the page, or publish the template anew.`,
        ),
        'plan',
        undefined,
        'template',
      );
    }
    if (gaps.length === 0) return;
    this.by.findings.push(untranslated(gaps, edition, this.by.values));
  }

  #checkCurrency(): void {
    const cell = this.by.sheet.evaluate('currency', this.template.sheet.currency);
    this.by.uses(cell);
    if (cell.value.type === 'text' && isCurrencyCode(cell.value.value)) return;
    const finding = noCurrency(cell.value, this.#called);
    this.by.noCurrency = finding.id;
    this.by.findings.push(finding);
  }

  /** What is printed adds up: each declared column sums to its figure (EN 16931 BR-CO-10, BR-CO-14). */
  #proveSums(): void {
    for (const { column, figure } of this.template.sheet.sums) {
      const { value } = this.by.sheet.evaluate(`sum ${figure}`, column);
      const total = this.by.sheet.figure(figure);
      if (value.type !== 'list' || total.value.type !== 'money') continue;
      const sum = new PrintedSum();
      for (const item of value.items) sum.add(item);
      const label = total.figure!.label;
      this.by.prove(sum, { column, label, value: total.value, workings: this.by.explained(total) });
    }
  }

  #runChecks(): void {
    for (const check of this.template.checks) {
      const { value } = this.by.sheet.evaluate(`check ${check.id}`, check.formula);
      // A check over a value that is itself an error has nothing to add: the error is a finding already.
      if (value.type === 'error' || asCondition(value) === true) continue;
      this.by.findings.push(failedCheck(check, sentenceOver(this.by.sheet, check.sentence)));
    }
  }

  /** What was filed for the record before, beside which this one would count. */
  #lookBack(meanings: Composition['meanings']): void {
    const { registered = [], asNew = false } = this.context;
    const { kind } = this.template;
    const before = filedBefore(kind, registered, { called: this.#called, asNew });
    if (before) this.by.findings.push(before);
    if (kind === 'credit note') this.by.findings.push(...overCredited(meanings, registered));
  }

  /** What the record says otherwise than when somebody looked at the document first. */
  #tellChanged(used: UsedValues): void {
    const { before } = this.made;
    if (!before) return;
    const changes = usedChanges(before, used);
    const { schema, snapshot } = this.by.sheet.input;
    const values = this.by.readersOf(new Set(changes.map(({ path }) => path)));
    const finding = changedSince(changes, { snapshot, schema, called: this.#called }, values);
    if (finding) this.by.findings.push(finding);
  }

  #checkFit(): void {
    const { fits } = this.template;
    const sentence = fits && unfitSentence(fits, this.by.sheet);
    if (sentence !== undefined) this.by.findings.push(unfitRecord(sentence, fits!, this.#called));
  }

  /** What the record is called by its type. */
  get #called(): string {
    return calledByType(this.context.schema, this.template.record.type);
  }

  /** A finding about a figure as a whole, with the places where it is printed. */
  #marked(finding: Finding): Finding {
    if (finding.values.length > 0 || finding.workings === undefined) return finding;
    return { ...finding, values: this.#valuesExplainedBy(finding.workings) };
  }

  #valuesExplainedBy(workings: string): string[] {
    return Object.keys(this.by.values).filter((key) => this.by.values[key]!.workings === workings);
  }

  #figures(): Composition['figures'] {
    return this.template.sheet.document.map((figure) => {
      const cell = this.by.sheet.figure(figure.name);
      return {
        name: figure.name,
        label: figure.label,
        result: formatValue(cell.value, INTERFACE_LOCALE),
        failed: cell.value.type === 'error',
        workings: this.by.explained(cell),
        internal: figure.internal ?? false,
        isSum: cell.value.type === 'money',
      };
    });
  }

  #withMeaning(meaning: Meaning): Cell | undefined {
    const figure = this.template.sheet.document.find((each) => each.meaning === meaning);
    return figure && this.by.sheet.figure(figure.name);
  }
}

/** A PDF that can be joined to the end. */
type Joinable = Pick<TemplateFile, 'sha256' | 'pages' | 'standard'>;

/** The files of the record, or of records next to it, that a formula names; one that is named twice is joined once. */
function filesIn(value: Value): PictureField[] {
  if (value.type === 'list') {
    const all = value.items.flatMap(filesIn);
    return all.filter(({ link }, at) => all.findIndex((other) => other.link === link) === at);
  }
  return value.type === 'image' ? [value.picture] : [];
}

function namesIn(value: Value): string[] {
  if (value.type === 'list') return value.items.flatMap(namesIn);
  return value.type === 'text' && value.value !== '' ? [value.value] : [];
}
