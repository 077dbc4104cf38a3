import { describe, expect, it } from 'vitest';
import { addressOf } from './address';
import { readsOf } from './page-reads';

describe('what a page reads first', () => {
  it('is the frame of every page, and the answers it shows', () => {
    expect(readsOf('templates', {}, {})).toEqual(['/api/me', '/api/record-types', '/api/templates']);
    expect(readsOf('you', {}, {})).toEqual(['/api/me', '/api/record-types']);
    expect(readsOf('records-type-id', { type: 'Deal', id: 'W/1' }, {})).toContain('/api/records/Deal/W%2F1');
  });

  it('follows the address of a list', () => {
    const reads = readsOf('records-type', { type: 'Deal' }, { view: 'quoted', stage: 'Site visit', skip: '25' });
    expect(reads).toContain(
      '/api/records/Deal?view=quoted&stage=Site%20visit&sort=day&descending=false&skip=25&top=25',
    );
    expect(reads).toContain('/api/record-types/Deal?stage=Site%20visit');
    expect(readsOf('register', {}, { descending: 'false', skip: 'x' })).toContain(
      '/api/documents?sort=created&descending=false&skip=0&top=50',
    );
  });

  it('is the proof, of a record with a template, in the edition of the address', () => {
    const page = 'records-type-id-produce-template';
    const named = { type: 'Deal', id: 'D-1188', template: 'quote' };
    expect(readsOf(page, named, {})).toContain('/api/productions?template=quote&record=D-1188');
    expect(readsOf(page, named, { edition: 'nl', leaf: 'workings' })).toContain(
      '/api/productions?template=quote&record=D-1188&edition=nl',
    );
  });

  it('has every part of an address encoded', () => {
    expect(addressOf('GET /find', { query: { q: 'a&b=ü' } })).toBe('/api/find?q=a%26b%3D%C3%BC');
  });
});
