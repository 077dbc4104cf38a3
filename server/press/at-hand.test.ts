import { expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import type { Typesetter } from '../../render/typst/typesetter';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { ProofsAtHand, type Asked } from './at-hand';

/** Sets every document as one page with as many letters as asked, and counts how often it does. */
function counting(letters = 10) {
  const counted = { times: 0 };
  const proof = () => {
    counted.times++;
    return { glyphs: '', pages: ['x'.repeat(letters)], pageSize: { width: 1, height: 1 } };
  };
  return { counted, atHand: new ProofsAtHand({ proof } as unknown as Typesetter) };
}
const asked = (key: string, inputName: string): Asked => ({
  input: {
    template: shipped.templates[0]!,
    snapshot: demoSnapshot('D-1187'),
    context: { schema: demoSchema, pins: shipped, issueDate: '2026-11-23', edition: 'en', available: demoPictures },
  },
  inputName,
  key,
});

it('neither composes nor sets the same input again, and knows a proof by its own name whatever its input is called', () => {
  const { counted, atHand } = counting();
  const first = atHand.content(asked('proof 1', 'as it is'));
  expect(atHand.content(asked('proof 2', 'as it is'))).toBe(first);
  expect(atHand.content(asked('proof 1', 'read back from the database'))).toBe(first);
  expect(atHand.composed(asked('proof 2', 'read back')).composition.title).toBe(first.title);
  expect(counted.times).toBe(1);
  expect(atHand.content(asked('proof 3', 'changed'))).not.toBe(first);
  expect(counted.times).toBe(2);
});

it('forgets the oldest proofs where their drawings are large', () => {
  const { counted, atHand } = counting(10_000_000);
  for (const name of ['one', 'two', 'three']) atHand.content(asked(name, name));
  atHand.content(asked('three', 'three'));
  expect(counted.times).toBe(3);
  atHand.content(asked('one', 'one'));
  expect(counted.times).toBe(4);
});
