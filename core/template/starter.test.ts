import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { compose } from '../production/compose';
import { mayFile } from '../production/findings/finding';
import type { RecordSchema } from '../record/schema';
import { faultsOf } from './gate';
import { newTemplate, type Beginning } from './starter';
import { templateShape } from './template';
import { DOCUMENT_KINDS } from './document-kinds';

const AROUND = { schema: demoSchema, houseStyle: 'orrin-vale', series: 'quote' };
const begin = (more: Partial<Beginning> = {}, around: Partial<typeof AROUND> = {}) =>
  newTemplate(
    { name: 'Our quote', kind: 'quote', recordType: 'Deal', from: 'starter', ...more },
    { ...AROUND, ...around },
  );

describe.each([...DOCUMENT_KINDS])('a starter for a %s', (kind) => {
  const template = begin({ kind });

  it('passes the gate, and its document may be filed', () => {
    templateShape.validateSync(template, { strict: true });
    expect(faultsOf(template, shipped, demoSchema)).toMatchObject({ faults: [] });
    const { findings, document } = compose(template, demoSnapshot('D-1187'), {
      schema: demoSchema,
      pins: shipped,
      issueDate: '2026-11-27',
      available: demoPictures,
    });
    expect(findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
    expect(mayFile(findings)).toBe(true);
    expect(JSON.stringify(document.body)).toContain('Marlow Fen Nurseries');
  });
});

it('computes its totals by a ready-made calculation, and proves the column', () => {
  const { figures, proved, document } = compose(begin(), demoSnapshot('D-1187'), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    available: demoPictures,
  });
  const quote = compose(shipped.templates[0]!, demoSnapshot('D-1187'), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    available: demoPictures,
  });
  const total = (all: typeof figures) => all.find(({ name }) => name === 'total')!.result;
  expect(total(figures)).toBe(total(quote.figures));
  expect(proved.sums).toBeGreaterThan(1);
  expect(JSON.stringify(document.body)).toContain('Vent motor VM-48, 24 V');
});

it('empty is one line to write on, of a name that makes an id', () => {
  const template = begin({ from: 'empty', name: 'Ärger & Söhne: Brief' });
  expect([template.id, template.layout.body]).toEqual([
    'arger-sohne-brief',
    [{ type: 'paragraph', attrs: { id: 'first' } }],
  ]);
  expect(begin({ name: '！' }).id).toBe('template');
});

it('takes what a record type has, and nothing else', () => {
  const text = (name: string) => ({ name, label: name, type: 'text' as const, nullable: true, readonly: false });
  const schema: RecordSchema = {
    types: { SiteVisit: { name: 'SiteVisit', label: 'Site visit', fields: { title: text('title') } } },
  };
  const template = begin({ recordType: 'SiteVisit', kind: 'quote' }, { schema });
  expect(template.record).toEqual({ type: 'SiteVisit', root: 'site_visit' });
  expect(template.layout.body.map(({ type }) => type)).not.toContain('lineTable');
  expect(faultsOf(template, shipped, schema)).toMatchObject({ faults: [] });
});
