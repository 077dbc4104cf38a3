import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { pathsNear } from '../../core/record/paths';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { openDraft, seeEditor } from '../../server/drafts';
import { fieldsGone } from '../../server/missing-fields';
import { Press } from '../../server/press/press';
import { findTemplate } from '../../server/productions/template';
import { recordValues } from '../../server/records/record-list';
import { freshSchema, recordSchema, withSchemaAsItIs } from '../../server/records/record-schema';
import { SourceError } from '../../server/records/source';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { proofOf } from './produce';
import { openStack, type Stack } from './stack';

/** A field gets another name in the CRM while Lumbix goes by what it held a moment before. */
let stack: Stack;
let press: Press;
const CALLER = callerWith();
const services = () => ({ database: openDatabase().database, press }) as unknown as Services;
const ID = 'glasshouse-quote';
const deal = { type: 'Deal', id: 'D-1188' };

beforeAll(async () => {
  stack = await openStack();
  press = new Press(1);
  await recordSchema();
});
afterEach(async () => {
  await stack.renameInCrm('Deal', 'works', 'site_works');
  await freshSchema();
});
afterAll(async () => {
  press.close();
  await closeDatabase();
  await stack.close();
});

it('reads a record by the fields that there are now', async () => {
  const paths = () => recordSchema().then((schema) => pathsNear(schema, 'Deal'));
  const before = await recordValues(deal, await paths(), CALLER);
  await stack.renameInCrm('Deal', 'site_works', 'works');
  const read = async () => recordValues(deal, await paths(), CALLER);
  await expect(read()).rejects.toThrow(SourceError);
  const after = await withSchemaAsItIs(read);
  expect(after.fields.works).toEqual(before.fields.site_works);
  expect(after.fields).not.toHaveProperty('site_works');
});

it('makes a proof that names the field, and tells the places that read it', async () => {
  const { versionId } = (await findTemplate(openDatabase().database, ID))!;
  const gone = () => fieldsGone(openDatabase().database, [versionId]);
  expect((await gone()).get(versionId)).toEqual([]);
  await stack.renameInCrm('Deal', 'site_works', 'works');
  const { findings } = await withSchemaAsItIs(() => proofOf(services(), deal.id, ID, CALLER));
  expect(findings.map(({ sentence }) => sentence).join()).toContain('site_works');
  expect((await gone()).get(versionId)).toEqual(['site_works']);
});

it('tells whoever has a template open that the fields are others', async () => {
  const opened = await openDraft(services(), ID, CALLER);
  const seen = () => seeEditor(services(), ID, { window: '00000000-0000-4000-8000-000000000001' }, CALLER);
  expect((await seen()).schemaDigest).toBe(opened.schemaDigest);
  await stack.renameInCrm('Deal', 'site_works', 'works');
  await freshSchema();
  expect((await seen()).schemaDigest).not.toBe(opened.schemaDigest);
  expect((await openDraft(services(), ID, CALLER)).schemaDigest).toBe((await seen()).schemaDigest);
});

it('asks once more only where what the CRM holds has changed', async () => {
  await stack.renameInCrm('Deal', 'site_works', 'works');
  await freshSchema();
  let asked = 0;
  const refused = () => {
    asked++;
    return Promise.reject(new SourceError('refused', 'The CRM knows no such field.', 400));
  };
  await expect(withSchemaAsItIs(refused)).rejects.toThrow('The CRM knows no such field.');
  expect(asked).toBe(1);
  const away = () => Promise.reject(new SourceError('away', 'The CRM does not answer.'));
  await expect(withSchemaAsItIs(away)).rejects.toThrow('The CRM does not answer.');
});
