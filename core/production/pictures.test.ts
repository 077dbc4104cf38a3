import { describe, expect, it } from 'vitest';
import { composeBlocks } from '../../tests/compose-blocks';
import { demoPictures, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';
import type { Block } from '../template/blocks';
import type { Template } from '../template/template';

const HASH = Object.keys(demoPictures)[0]!;
const size = { sha256: HASH, width: 400, height: 200 };
const drawing = { label: 'Drawing', mediaType: 'image/png', size: 1, ...size } as const;
const files = { drawing } as unknown as Template['files'];
const picture = (attrs: object): Block => ({
  type: 'picture',
  attrs: { id: 'shown', width: 100, alt: 'A drawing', ...attrs },
});
const composed = (attrs: object, deal = demoSnapshot('D-1187')) =>
  composeBlocks([picture(attrs)], { deal, template: { files } });
const ofDeal = (photo: FieldValue) =>
  composed({ formula: 'deal.site_photo' }, withFields(demoSnapshot('D-1187'), { site_photo: photo }));

describe('a picture of the template', () => {
  it('is as wide as it is asked to be, or as its height lets it', () => {
    expect(composed({ file: 'drawing' }).document.body).toMatchObject([{ picture: HASH, width: 100, align: 'start' }]);
    // 400 × 200 pixels within a height of 30 points: 60 points wide.
    expect(composed({ file: 'drawing', height: 30, align: 'end' }).document.body).toMatchObject([
      { width: 60, align: 'end' },
    ]);
    expect(composed({ file: 'drawing' }).assets[HASH]).toBe(demoPictures[HASH]);
  });

  it('that is not said stops', () => {
    expect(composed({}).findings).toMatchObject([
      { severity: 'stops', sentence: 'The template has no file “” to print as a picture.' },
    ]);
  });
});

describe('a picture of what the record leads to', () => {
  it('prints that of a line’s product, of a chosen one and of each in turn', () => {
    const first = demoSnapshot('D-1187');
    const { document, findings } = composeBlocks(
      [
        picture({ formula: 'FIRST(lines).product.picture' }),
        {
          type: 'forEach',
          attrs: { id: 'each', list: 'lines[not ISBLANK(product.picture)]', note: 'line with a picture' },
          content: [picture({ id: 'inside', formula: 'product.picture' })],
        },
      ],
      { deal: first },
    );
    const [one, section] = document.body;
    expect(one).toMatchObject({ kind: 'picture', width: 100 });
    const printed = JSON.stringify(section).match(/"kind":"picture"/g) ?? [];
    const lines = first.fields.lines as readonly RecordSnapshot[];
    expect(printed).toHaveLength(
      lines.filter(({ fields }) => (fields.product as RecordSnapshot).fields.picture).length,
    );
    expect(findings).toEqual([]);
  });

  it('that is a PDF says so', () => {
    const { document, findings } = ofDeal({ image: { link: 'x', sha256: HASH, mediaType: 'application/pdf' } });
    expect(document.body).toEqual([]);
    expect(findings.map(({ sentence }) => sentence)).toEqual([
      'The CRM holds a PDF here, which cannot stand as a picture. Nothing is printed in its place.',
    ]);
  });
});

describe('a picture of the record', () => {
  it('prints with its hash among the assets and leads to its value', () => {
    const { document, assets, values } = ofDeal({ image: { link: 'x', ...size } });
    expect(document.body).toMatchObject([{ picture: HASH, width: 100, value: 'shown' }]);
    expect(Object.keys(assets)).toContain(HASH);
    expect(values.shown).toMatchObject({ block: 'shown' });
  });

  it.each<[string, FieldValue, string]>([
    [
      'that was refused says why',
      { image: { link: 'x', refused: 'The picture is cut off.' } },
      'The picture is cut off. Nothing is printed in its place.',
    ],
    [
      'that was not fetched says so',
      { image: { link: 'x' } },
      'The picture was not read from the CRM. Nothing is printed in its place.',
    ],
    ['that the deal does not have says so', null, 'The deal has no site photo. Nothing is printed in its place.'],
    [
      'that is something else says so',
      'a text',
      'A picture is printed here, but the formula gives something else. Nothing is printed in its place.',
    ],
  ])('%s, as a warning', (_, photo, sentence) => {
    const { document, findings } = ofDeal(photo);
    expect(document.body).toEqual([]);
    expect(findings).toMatchObject([{ severity: 'warns', title: 'A picture is missing', sentence, block: 'shown' }]);
  });

  it('whose formula fails stops, as every failed value does', () => {
    expect(composed({ formula: 'FIRST(lines[false]).product.picture' }).findings).toMatchObject([
      { severity: 'warns' },
    ]);
    expect(composed({ formula: '1 / 0' }).findings).toMatchObject([
      { severity: 'stops', sentence: 'Division by zero.' },
    ]);
  });
});

describe('a code', () => {
  const code = (symbology: 'qrcode' | 'ean13', formula: string) =>
    composeBlocks([{ type: 'code', attrs: { id: 'code', symbology, formula, width: 60, alt: 'A code' } }]);

  it('is drawn into the assets', () => {
    const { document, assets } = code('qrcode', 'deal.name');
    const [drawn] = document.body as { picture: string; width: number }[];
    expect(drawn).toMatchObject({ kind: 'picture', width: 60, alt: 'A code' });
    expect(new TextDecoder().decode(assets[drawn!.picture]!.bytes)).toContain('<svg');
  });

  it('that cannot hold its text stops', () => {
    expect(code('ean13', '"not digits"').findings).toMatchObject([
      {
        severity: 'stops',
        sentence: '“not digits” cannot be printed as this kind of code; choose another kind, or another text.',
      },
    ]);
  });

  it('over a value that is missing is told once, and nothing is drawn', () => {
    const { document, findings } = code('qrcode', 'deal.order_number');
    expect(document.body).toEqual([]);
    expect(findings).toHaveLength(1);
    expect(findings).toMatchObject([{ severity: 'stops', title: 'No purchase-order number' }]);
  });
});

describe('a payment code', () => {
  const payment = (parts: object) =>
    composeBlocks([
      {
        type: 'paymentCode',
        attrs: {
          id: 'pay',
          payee: '"Orrin & Vale"',
          iban: '"GB71 ELMS 0000 0000 0000 00"',
          amount: 'figures.total',
          reference: '"Q-1"',
          width: 80,
          ...parts,
        },
      },
    ]);
  const inEuros = { amount: 'AMOUNT(12.5, "EUR")' };

  it('is drawn for euros', () => {
    expect(payment(inEuros)).toMatchObject({
      findings: [],
      document: { body: [{ kind: 'picture', alt: 'Payment code' }] },
    });
  });

  it('stops where the amount is no money, fails, or is of another currency', () => {
    expect(payment({ amount: '5' }).findings).toMatchObject([
      { sentence: 'The amount of the payment code is no money.' },
    ]);
    expect(payment({ amount: '1 / 0' }).findings).toMatchObject([{ sentence: 'Division by zero.' }]);
    expect(payment({}).findings).toMatchObject([{ sentence: 'A payment code is for euros, not for GBP.' }]);
  });

  it('stops where one of its texts is missing', () => {
    expect(payment({ ...inEuros, reference: 'deal.order_number' }).findings).toMatchObject([
      { title: 'No purchase-order number' },
    ]);
  });
});
