import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundedJson, outOfBounds, type Bounds } from './bounds';
import { shaped } from './faults';
import { jsonSchema } from './json-schema';
import {
  boolean,
  byType,
  either,
  formulaName,
  id,
  label,
  listOf,
  mapOf,
  number,
  oneOf,
  shape,
  text,
  type ShapeOf,
} from './shape';

type Tree = { type: 'leaf'; word: string } | { type: 'branch'; content: Tree[] };
const leaf: ShapeOf<Tree> = shape({ type: oneOf(['leaf']).required(), word: text(5).required() }).required();
const tree = byType<Tree>('tree', () => ({ leaf, branch }));
const branch: ShapeOf<Tree> = shape({
  type: oneOf(['branch']).required(),
  content: listOf(tree, 3).required(),
}).required();

const garden = shape({
  id: id(),
  name: label(),
  root: formulaName(),
  count: number().integer().min(0).max(9),
  open: boolean(),
  width: either((value) => typeof value === 'number', number().min(0).required(), oneOf(['rest']).required()),
  trees: listOf(tree, 2).min(1).required(),
  notes: mapOf(text(9).defined()),
}).required();

const whole = {
  id: 'g-1',
  name: 'Garden',
  root: 'garden',
  width: 'rest',
  trees: [{ type: 'branch', content: [{ type: 'leaf', word: 'elm' }] }],
};
const sentences = (change: object) => {
  const read = shaped(garden, { ...whole, ...change }, 'the garden');
  return 'faults' in read ? read.faults.map(({ sentence }) => sentence) : [];
};

describe('a shape', () => {
  const cases: [string, object, string][] = [
    [
      'a word that is none of its own',
      { trees: [{ type: 'bush' }] },
      'In the garden, type: “bush” stands here, but this is one of leaf, branch.',
    ],
    [
      'a fault deep inside',
      { trees: [{ type: 'branch', content: [{ type: 'leaf', word: 'sycamore' }] }] },
      'the text is longer than 5 characters.',
    ],
    ['too many', { trees: Array(3).fill(whole.trees[0]) }, 'In the garden, trees: there are 3 here, and 2 may be.'],
    ['none where one belongs', { trees: [] }, 'In the garden, trees: this is empty; at least one belongs here.'],
    ['an empty name', { name: '' }, 'In the garden, name: '],
    ['blanks around a name', { name: ' Garden' }, 'this takes a text with no blanks at its ends.'],
    [
      'a name that formulas cannot say',
      { root: 'my garden' },
      'this takes up to 80 letters, digits and “_”, a letter first.',
    ],
    ['half a tree', { count: 1.5 }, 'In the garden, count: 1.5 stands here, but a whole number belongs here.'],
    ['fewer than none', { count: -1 }, 'In the garden, count: -1 is less than 0.'],
    ['more than there may be', { count: 10 }, 'In the garden, count: 10 is more than 9.'],
    [
      'a text for yes or no',
      { open: 'yes' },
      'In the garden, open: “yes” stands here, but true or false belongs here.',
    ],
    ['a property nobody knows', { colour: 'green' }, 'there is no property colour here'],
    ['neither of two shapes', { width: 'all' }, 'In the garden, width: “all” stands here, but this is one of rest.'],
    ['a note that is no text', { notes: { one: 1 } }, 'In the garden, one: 1 stands here, but a text belongs here.'],
    ['nothing at all where something belongs', { name: undefined }, 'In the garden, name: this is missing.'],
  ];

  it.each(cases)('tells of %s, and the JSON Schema refuses it too', (what, change, sentence) => {
    expect(sentences(change).join('\n')).toContain(sentence);
    const file: unknown = JSON.parse(JSON.stringify({ ...whole, ...change }));
    if (!what.startsWith('blanks')) expect(new Ajv({ strict: false }).compile(jsonSchema(garden))(file)).toBe(false);
  });

  it('takes what fits it as it is', () => {
    const full = { ...whole, count: 3, open: true, width: 0.5, notes: { constructor: 'a name' } };
    expect(shaped(garden, full, 'the garden')).toEqual({ value: full });
    expect(new Ajv({ strict: false }).compile(jsonSchema(garden))(full)).toBe(true);
  });

  it('never throws, whatever it is given', () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => 'faults' in shaped(garden, value, 'it')));
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom(...Object.keys(whole)), fc.jsonValue()),
        (change) => void sentences(change),
      ),
    );
  });
});

describe('one of several shapes', () => {
  const nested = (word: string, depth: number): Tree =>
    depth === 0 ? { type: 'leaf', word } : { type: 'branch', content: [nested(word, depth - 1)] };

  it('tells the same of data that was looked at before', () => {
    const wrong = nested('too long', 2);
    const first = shaped(tree as unknown as ShapeOf<Tree>, wrong, 'the tree');
    expect(first).toEqual({ faults: [expect.objectContaining({ path: 'content[0].content[0].word' })] });
    expect(shaped(tree as unknown as ShapeOf<Tree>, wrong, 'the tree')).toEqual(first);
    const mended = nested('short', 2);
    expect(shaped(tree as unknown as ShapeOf<Tree>, mended, 'the tree')).toEqual({ value: mended });
    expect(shaped(tree as unknown as ShapeOf<Tree>, mended, 'the tree')).toEqual({ value: mended });
  });

  it('looks at each level of deep wrong data a few times, not twice as often as at the level above', () => {
    let looks = 0;
    const leafOf: ShapeOf<Tree> = shape({
      type: oneOf(['leaf']).required(),
      word: text(5)
        .test('counted', () => ++looks > 0)
        .required(),
    }).required();
    const counted = byType<Tree>('counted', () => ({ leaf: leafOf, branch: branchOf }));
    const branchOf: ShapeOf<Tree> = shape({
      type: oneOf(['branch']).required(),
      content: listOf(counted, 3).required(),
    }).required();
    expect('faults' in shaped(counted as unknown as ShapeOf<Tree>, nested('too long', 12), 'the tree')).toBe(true);
    expect(looks).toBeLessThan(40);
  });
});

describe('bounds', () => {
  const BOUNDS: Bounds = { values: 20, objects: 4, depth: 5, items: 6, text: 10, name: 200 };
  const refusal = (data: unknown) => outOfBounds(data, BOUNDS);

  it.each<[unknown, string | undefined]>([
    [{ a: [1, 2, 3], b: 'short' }, undefined],
    [[1, 2, 3, 4, 5, 6], undefined],
    [[1, 2, 3, 4, 5, 6, 7], 'has a list of 7; no list may be longer than 6.'],
    [[[[[[]]]]], undefined],
    [[[[[[1]]]]], undefined],
    [[[[[[[1]]]]]], 'is nested more than 5 levels deep.'],
    [[{}, {}, {}, {}], undefined],
    [[{}, {}, {}, {}, {}], 'has more than 4 parts.'],
    [Array(5).fill([1, 2, 3, 4]), 'holds more than 20 values.'],
    ['0123456789', undefined],
    ['0123456789a', 'has a text of more than 10 characters.'],
    [{ a: 'x\0' }, 'has a text with a character that is none (NUL, or half of a pair). Write it anew.'],
    [{ a: '\ud800' }, 'has a text with a character that is none (NUL, or half of a pair). Write it anew.'],
    [{ a: '\udc00x' }, 'has a text with a character that is none (NUL, or half of a pair). Write it anew.'],
    [{ a: '\ud83c\udf3f' }, undefined],
    [JSON.parse('{"__proto__": 1}'), 'has a property “__proto__”, which is no name.'],
    [JSON.parse('1e999'), 'holds a number that is too great.'],
  ])('of %j', (data, expected) => {
    expect(refusal(data)).toBe(expected);
  });

  it('are asked of what is JSON, and the place of a mistake is told in our own words', () => {
    expect(boundedJson('\uFEFF{"a": 1}', 'The file', BOUNDS)).toEqual({ data: { a: 1 } });
    expect(boundedJson('{\n  "a": 1,\n  "b": 2 "c": 3\n}', 'The file', BOUNDS)).toEqual({
      refused: 'The file is not JSON: look at line 3, column 10.',
    });
    expect(boundedJson('{"a": }', 'The file', BOUNDS)).toEqual({
      refused: 'The file is not JSON: look at line 1, column 7.',
    });
    expect(boundedJson('{"a": [1,', 'The file', BOUNDS)).toEqual({
      refused: 'The file is not JSON: look at line 1, column 10.',
    });
    expect(boundedJson("{\n\n  'a': 1}", 'The file', BOUNDS)).toEqual({
      refused: 'The file is not JSON: look at line 3, column 3.',
    });
    expect(boundedJson('', 'The file', BOUNDS)).toEqual({ refused: 'The file is not JSON: look at line 1, column 1.' });
    expect(boundedJson('[1e999]', 'The file', BOUNDS)).toEqual({
      refused: 'The file holds a number that is too great.',
    });
  });

  it.each([
    ['[{},{},{},{},{', 'The file has more than 4 parts.'],
    ['[[[[[[[', 'The file is nested more than 5 levels deep.'],
    [`[${'1,'.repeat(21)}`, 'The file holds more than 20 values.'],
    [`[${'[],'.repeat(30)}`, 'The file holds more than 20 values.'],
  ])('are asked of “%s” before it is parsed', (source, refused) => {
    expect(boundedJson(source, 'The file', BOUNDS)).toEqual({ refused });
  });

  it('before parsing never refuse what they let pass after it, whatever texts hold', () => {
    const bracketed = fc.stringMatching(/^[[\]{},"\\:x]{0,12}$/);
    const wide: Bounds = { values: 300, objects: 100, depth: 12, items: 100, text: 100, name: 200 };
    fc.assert(
      fc.property(fc.jsonValue({ stringUnit: bracketed }), (data) => {
        const refused = outOfBounds(data, wide);
        const read = boundedJson(JSON.stringify(data), 'It', wide);
        if (refused === undefined) expect(read).toEqual({ data: JSON.parse(JSON.stringify(data)) as unknown });
        else expect(read).toHaveProperty('refused');
      }),
    );
  });
});
