import { describe, expect, it } from 'vitest';
import { Faults } from './faults';

describe('faults', () => {
  it('strike as often as they are set to, each where it belongs, the first one first', () => {
    const faults = new Faults();
    faults.add({ on: 'attach', kind: 'cut-off', times: 2 });
    faults.add({ on: 'any', kind: 'status', status: 503, times: 1 });
    expect(faults.next('read')).toMatchObject({ kind: 'status', status: 503 });
    expect(faults.next('read')).toBeUndefined();
    expect(faults.next('attach')).toMatchObject({ kind: 'cut-off' });
    expect(faults.list()).toMatchObject([{ kind: 'cut-off', times: 1 }]);
    expect(faults.next('attach')).toMatchObject({ kind: 'cut-off' });
    expect(faults.next('attach')).toBeUndefined();
  });

  it('are gone once they are cleared', () => {
    const faults = new Faults();
    faults.add({ on: 'any', kind: 'page', times: 5 });
    faults.clear();
    expect([faults.next('patch'), faults.list()]).toEqual([undefined, []]);
  });
});
