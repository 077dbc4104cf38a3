import { getSchema } from '@tiptap/core';
import { Fragment } from '@tiptap/pm/model';
import { expect, it } from 'vitest';
import { sheetExtensions } from './extensions';
import { named } from './part-ids';

const schema = getSchema(sheetExtensions);

it('parts without an id get one each, at every depth; those with one keep it, and text stays text', () => {
  const line = (words: string, id: string | null) => schema.node('paragraph', { id }, schema.text(words));
  const list = schema.node('bulletList', null, schema.node('listItem', null, schema.text('Item')));
  const [first, second, third] = named(Fragment.from([line('One', null), line('Two', 'own'), list])).content;
  expect(first!.attrs.id).toMatch(/^b-[0-9a-f]{12}$/);
  expect(second!.attrs.id).toBe('own');
  const ids = [first!.attrs.id, third!.attrs.id, third!.firstChild!.attrs.id] as string[];
  expect(new Set(ids).size).toBe(3);
  expect([first!.textContent, third!.textContent]).toEqual(['One', 'Item']);
});
