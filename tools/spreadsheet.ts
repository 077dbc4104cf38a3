/**
 * Computes generated formulas of OpenFormula's functions in LibreOffice Calc and writes them with its results to
 * core/formula/functions/spreadsheet.json, for the test beside it. Needs `soffice` (Debian's
 * libreoffice-calc-nogui). `npm run spreadsheet`.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A formula in both spellings: commas here, semicolons there. */
type Piece = { ours: string; theirs: string };

let seed = 20_261_123;
/** The same numbers in every run (mulberry32). */
function random(): number {
  seed = (seed + 0x6d2b79f5) | 0;
  let mixed = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
}
const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
const pick = <T>(all: readonly T[]): T => all[whole(0, all.length - 1)]!;

const plain = (text: string): Piece => ({ ours: text, theirs: text });
const num = (): Piece => plain((whole(-99_999, 99_999) / 10 ** whole(0, 4)).toString());
const positive = (): Piece => plain((whole(1, 99_999) / 10 ** whole(0, 3)).toString());
const int = (least: number, most: number): Piece => plain(String(whole(least, most)));
const words = [
  'glasshouse',
  'fern House',
  '  two  spaces ',
  'VENT motor 48',
  'a-b-c-a',
  'Dünger',
  'x',
  'ridge RIDGE ridge',
];
const text = (): Piece => plain(`"${pick(words)}"`);
const call = (name: string, ...args: Piece[]): Piece => ({
  ours: `${name}(${args.map(({ ours }) => ours).join(', ')})`,
  theirs: `${name}(${args.map(({ theirs }) => theirs).join(';')})`,
});
const between = (left: Piece, operator: string, right: Piece): Piece => ({
  ours: `${left.ours} ${operator} ${right.ours}`,
  theirs: `${left.theirs}${operator}${right.theirs}`,
});
const bracketed = ({ ours, theirs }: Piece): Piece => ({ ours: `(${ours})`, theirs: `(${theirs})` });
const date = (): Piece => call('DATE', int(1990, 2060), int(1, 12), int(1, 28));
const EPOCH = call('DATE', plain('1970'), plain('1'), plain('1'));
/** A date as a number of days, so that no program's way of showing dates matters. */
const days = (piece: Piece): Piece => between(piece, '-', EPOCH);
const condition = (): Piece => between(num(), pick(['<', '<=', '>', '>=', '=', '<>']), num());
const several = (make: () => Piece): Piece[] => Array.from({ length: whole(2, 5) }, make);

const MAKERS: (() => Piece)[] = [
  ...['ROUND', 'ROUNDUP', 'ROUNDDOWN', 'TRUNC'].map((name) => () => call(name, num(), int(-2, 3))),
  ...['ROUND', 'INT', 'ABS', 'SIGN', 'TRUNC'].map((name) => () => call(name, num())),
  () => call('MOD', int(-999, 999), pick([int(1, 17), int(-17, -1)])),
  () => call('QUOTIENT', int(-999, 999), pick([int(1, 17), int(-17, -1)])),
  // Of numbers below zero with a multiple above it, programs disagree; the standard leaves it open.
  ...['CEILING', 'FLOOR'].map((name) => () => call(name, positive(), int(1, 12))),
  () => call('MROUND', positive(), pick([plain('0.05'), plain('0.25'), int(1, 12)])),
  () => call('POWER', int(-9, 9), int(0, 6)),
  () => call('SQRT', int(0, 9_999)),
  ...['SUM', 'PRODUCT', 'AVERAGE', 'MIN', 'MAX', 'MEDIAN', 'COUNT'].map((name) => () => call(name, ...several(num))),
  () => between(between(num(), pick(['+', '-']), num()), pick(['*', '/']), positive()),
  () => between(bracketed(between(num(), pick(['+', '-']), num())), pick(['*', '/']), positive()),
  () => between(plain(`-${whole(2, 9)}`), '^', int(2, 4)),
  () => between(between(int(2, 4), '^', int(2, 3)), '^', int(1, 2)),
  () => between(plain(`${whole(1, 99)}%`), '*', num()),
  () => between(text(), '&', text()),
  condition,
  ...['LEFT', 'RIGHT'].map((name) => () => call(name, text(), int(0, 12))),
  () => call('MID', text(), int(1, 8), int(0, 6)),
  ...['LEN', 'TRIM', 'UPPER', 'LOWER', 'PROPER'].map((name) => () => call(name, text())),
  () =>
    call('SUBSTITUTE', text(), plain(`"${pick(['a', 'ri', ' ', '-', 'zz'])}"`), plain(`"${pick(['', '+', 'ing'])}"`)),
  () => call('SUBSTITUTE', plain('"a-b-c-a"'), plain('"-"'), plain('"+"'), int(1, 4)),
  () => call('REPLACE', text(), int(1, 6), int(0, 4), plain('"new"')),
  () => call('REPT', plain('"ab"'), int(0, 5)),
  () => call('EXACT', text(), text()),
  () => call('FIND', plain('"s"'), plain('"glasshouse"'), int(1, 5)),
  () => call('SEARCH', plain('"RIDGE"'), plain('"ridge RIDGE ridge"'), int(1, 8)),
  () => call('VALUE', plain(`"${whole(0, 9_999)}.${whole(0, 99)}"`)),
  () => call('CONCATENATE', text(), int(1, 99), text()),
  ...['YEAR', 'MONTH', 'DAY', 'ISOWEEKNUM', 'WEEKDAY'].map((name) => () => call(name, date())),
  () => call('WEEKDAY', date(), int(1, 3)),
  () => days(call('DATE', int(1990, 2060), int(-6, 20), int(-20, 45))),
  ...['EDATE', 'EOMONTH'].map((name) => () => days(call(name, date(), int(-30, 30)))),
  () => call('DAYS', date(), date()),
  () => days(call('WORKDAY', date(), int(-40, 40))),
  () => call('NETWORKDAYS', date(), date()),
  () => call('IF', condition(), num(), text()),
  () => call('CHOOSE', int(1, 3), text(), num(), text()),
  ...['AND', 'OR', 'XOR'].map((name) => () => call(name, ...several(condition))),
];

const ROUNDS = 13;
const pieces = Array.from({ length: ROUNDS }, () => MAKERS.map((make) => make())).flat();
const folder = mkdtempSync(join(tmpdir(), 'lumbix-agreement-'));
const escaped = (formula: string) =>
  formula.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
/** Each result as text behind its kind, so that no cell format comes between: "n 12.5", "t fern", "b TRUE". */
const cell = ({ theirs }: Piece) => {
  const typed = `IF(ISERROR(${theirs});"e";IF(ISLOGICAL(${theirs});"b "&IF(${theirs};"yes";"no");IF(ISTEXT(${theirs});"t "&${theirs};"n "&TEXT(${theirs};"0.0000000000"))))`;
  return `<table:table-row><table:table-cell table:formula="of:=${escaped(typed)}" office:value-type="string"/></table:table-row>`;
};
writeFileSync(
  join(folder, 'cases.fods'),
  `<?xml version="1.0" encoding="UTF-8"?>
<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:of="urn:oasis:names:tc:opendocument:xmlns:of:1.2" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.spreadsheet"><office:body><office:spreadsheet><table:table table:name="cases">${pieces.map(cell).join('')}</table:table></office:spreadsheet></office:body></office:document>`,
);
execFileSync('soffice', [
  `-env:UserInstallation=file://${folder}/profile`,
  '--headless',
  '--convert-to',
  'csv:Text - txt - csv (StarCalc):9,0,76,1',
  '--outdir',
  folder,
  join(folder, 'cases.fods'),
]);
const results = readFileSync(join(folder, 'cases.csv'), 'utf8').split('\n');
rmSync(folder, { recursive: true });
const cases = pieces.map(({ ours }, at) => [ours, results[at]!.replace(/\r$/, '')]);
writeFileSync(
  'core/formula/functions/spreadsheet.json',
  `[\n${cases.map((each) => `  ${JSON.stringify(each)}`).join(',\n')}\n]\n`,
);
process.stdout.write(
  `${cases.length} formulas, ${cases.filter(([, result]) => result === 'e').length} of them errors there.\n`,
);
