import { describe, expect, it } from 'vitest';
import { freeFileName, safeFileName } from './file-name';
import { documentNumber } from './number';

describe('file names', () => {
  it.each([
    ['a/b\\c:d*e?f"g<h>i|j', 'a-b-c-d-e-f-g-h-i-j.pdf'],
    ['  .hidden. ', 'hidden.pdf'],
    ['CON', 'CON-.pdf'],
    ['', 'Document.pdf'],
    ['line\nend\u202e', 'lineend.pdf'],
    ['مزارع', 'مزارع.pdf'],
  ])('%j becomes %j', (name, safe) => {
    expect(safeFileName(name, 'pdf')).toBe(safe);
  });

  it('are bounded without cutting a character', () => {
    const name = safeFileName('🌱'.repeat(300), 'pdf');
    expect([...name]).toHaveLength(124);
    expect(name).not.toContain('\ufffd');
  });

  it('get a suffix where one is taken, whatever the case', () => {
    expect(freeFileName('Quote.pdf', ['quote.PDF', 'Quote (2).pdf'])).toBe('Quote (3).pdf');
  });
});

describe('numbers', () => {
  it('come from the series’ formula', () => {
    expect(documentNumber('"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)', '2026-11-23', 42)).toBe(
      'Q-2026-0042',
    );
  });

  it('refuse a formula that gives none', () => {
    expect(() => documentNumber('deal.name', '2026-11-23', 1)).toThrow('“deal” is neither a field nor a figure.');
  });
});
