import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { shaped } from '../../core/shape/faults';
import { compose } from '../../core/production/compose';
import { keptVersion } from '../../core/template/file/kept';
import { readTemplateFile } from '../../core/template/file/read';
import { upgradedTemplate } from '../../core/template/file/upgrade';
import { templateShape, type Pins, type Template } from '../../core/template/template';
import { demoPictures, demoSchema, demoSnapshot } from '../demo-snapshot';
import digests from './digests.json';
import shippedBefore from './shipped.json';

/** Deals with groups, bundles, options, deposits, other languages and missing values. */
const DEALS = ['D-1187', 'D-1189', 'D-1194', 'D-1200', 'D-1202', 'D-1213'];
const stored = (file: unknown) => ({
  template: file as Template,
  pins: { houseStyles: shippedBefore.houseStyles, clauses: shippedBefore.clauses } as unknown as Pins,
});

/** A composition as it was told when the digests were made: the columns of a table say whose they are since. */
const asItWasTold = (key: string, value: unknown): unknown =>
  key === 'columns' && Array.isArray(value)
    ? value.map((column: unknown) => (Array.isArray(column) ? column : { ...(column as object), id: undefined }))
    : value;

it.each(shippedBefore.templates.map((file) => [file.id, file] as const))(
  'the %s of format 1 prints what it did, read from its file and as a stored version',
  (id, file) => {
    const { template, pins } = keptVersion(stored(file));
    expect(template.formatVersion).toBe(2);
    expect(readTemplateFile(JSON.stringify(file))).toEqual({ template });
    const available = demoPictures;
    const documents = template.editions.flatMap((edition) =>
      DEALS.map((deal) =>
        compose(template, demoSnapshot(deal), {
          schema: demoSchema,
          pins,
          issueDate: '2026-11-23',
          edition: edition.id,
          available,
        }),
      ),
    );
    const printed = documents.map(({ document, findings, title }) => [document, findings, title]);
    const digest = createHash('sha256').update(JSON.stringify(printed, asItWasTold)).digest('hex');
    expect(digest).toBe((digests as Record<string, string>)[id]);
  },
);

it('what is in format 2 already stays as it is', () => {
  for (const file of shippedBefore.templates) {
    const once = upgradedTemplate(file);
    expect(upgradedTemplate(once)).toBe(once);
    expect(shaped(templateShape, once, 'it')).toHaveProperty('value');
  }
});
