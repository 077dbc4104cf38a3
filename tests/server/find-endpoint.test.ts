import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contract } from '../../core/contract/contract';
import { endpointFinder } from '../../server/edge/find-endpoint';
import { Problem } from '../../server/problem';

const find = endpointFinder(contract, '/api');
const statusOf = (method: string, url: string): number => {
  try {
    find(method, url);
    return 200;
  } catch (problem) {
    return problem instanceof URIError ? 400 : (problem as Problem).status;
  }
};

describe('the endpoint of an address', () => {
  it('is the one that it names, with its parts decoded once', () => {
    expect(find('PUT', '/api/people/rules').key).toBe('PUT /people/rules');
    expect(find('HEAD', '/api/records/Deal/D%201?x=1')).toMatchObject({
      key: 'GET /records/{type}/{id}',
      parameters: { id: 'D 1' },
      query: { x: '1' },
    });
    expect(find('GET', '/api/records/Deal/%252F').parameters).toEqual({ type: 'Deal', id: '%2F' });
    expect(find('GET', '/api/records/Deal?view=a%26b+c&view=d').query).toEqual({ view: ['a&b c', 'd'] });
  });

  it.each([
    ['GET', '/api', 404],
    ['GET', '/api/', 404],
    ['GET', '/api/records/Deal/', 404],
    ['GET', '/api//records/Deal', 404],
    ['GET', '/records/Deal', 404],
    ['DELETE', '/api/records/Deal/D-1', 405],
    ['PROPFIND', '/api/records/Deal', 405],
    ['GET', '/api/records/Deal/%E0%A4%A', 400],
    ['GET', '/api/records/Deal?view=%', 400],
    ['GET', '/api/records/Deal/..%2Fdocuments', 200],
  ])('%s %s is answered with %i', (method, url, status) => {
    expect(statusOf(method, url)).toBe(status);
  });

  it('is never another one because of what is inside of a part', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 1 }), (id) => {
        fc.pre(!/\p{Surrogate}/u.test(id));
        const { key, parameters } = find('DELETE', `/api/me/sessions/${encodeURIComponent(id)}`);
        expect(key).toBe('DELETE /me/sessions/{id}');
        expect(parameters).toEqual({ id });
      }),
    );
    for (const id of ['?', '/', '#', '..', '%3F', '?a=b'])
      expect(find('DELETE', `/api/me/sessions/${encodeURIComponent(id)}`).key).toBe('DELETE /me/sessions/{id}');
  });

  it('has names of its own alone in its query', () => {
    expect(Object.keys(find('GET', '/api/records/Deal?__proto__=x&constructor=y').query)).toEqual([
      '__proto__',
      'constructor',
    ]);
  });
});
