import { describe, expect, it } from 'vitest';
import { shipped } from '../../../demo/shipped';
import shippedBefore from '../../../tests/format-1/shipped.json';
import { FORMAT_VERSION } from '../template';
import { keptVersion, type KeptVersion } from './kept';

const pins = { clauses: shipped.clauses, houseStyles: shipped.houseStyles };

describe('a stored version', () => {
  it('in the current format is the same object: nothing is read twice', () => {
    const stored: KeptVersion = { template: shipped.templates[0]!, pins };
    expect(keptVersion(stored)).toBe(stored);
  });

  it('in the first format is upgraded, with what it holds on to', () => {
    const { templates, clauses, houseStyles } = shippedBefore;
    const stored: unknown = { template: templates[0], pins: { clauses, houseStyles } };
    const kept = keptVersion(stored as KeptVersion);
    expect(kept.template.formatVersion).toBe(FORMAT_VERSION);
    expect(kept.template.id).toBe('credit-note');
    expect(kept.pins.clauses.map(({ id }) => id)).toEqual(shippedBefore.clauses.map(({ id }) => id));
    expect(JSON.stringify(kept)).not.toContain('"role"');
  });

  it('that was never a template is an error with its place', () => {
    const stored = { template: { formatVersion: 1, id: 'x' }, pins } as unknown as KeptVersion;
    expect(() => keptVersion(stored)).toThrow(/the template/);
  });
});
