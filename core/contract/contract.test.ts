import { Validator } from '@seriousme/openapi-schema-validator';
import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { contract } from './contract';
import { problemsOf, type Endpoint } from './endpoint';
import { openApi } from './open-api';
import { PERMISSIONS, ROLES, whyNot } from './permissions';

const endpoints = Object.entries(contract as Readonly<Record<string, Endpoint>>);
const fieldsOf = (shape: unknown) => Object.keys(Object(Object(shape).fields) as object);

describe('the contract', () => {
  it('is the only way in: no route stands outside it', () => {
    expect(readdirSync('server/api')).toEqual(['[...].ts']);
    expect(readdirSync('server')).not.toContain('routes');
  });

  it.each(endpoints)('%s is said wholly', (key, endpoint) => {
    const [method, path] = key.split(' ') as [string, string];
    expect(fieldsOf(endpoint.parameters)).toEqual([...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name));
    expect(endpoint.about).toMatch(/^[A-Z].*\.$/);
    // Methods that are safe change nothing, and only they (RFC 9110, 9.2.1).
    expect(endpoint.twice === 'safe').toBe(method === 'GET');
    if (method === 'GET') expect(endpoint.body).toBeUndefined();
    if (endpoint.may !== 'anyone') expect(problemsOf(endpoint)).toEqual(expect.arrayContaining([401, 403]));
  });
});

describe('its OpenAPI document', () => {
  it('is valid', async () => {
    const { valid, errors } = await new Validator().validate(openApi() as Record<string, unknown>);
    expect(errors).toBeUndefined();
    expect(valid).toBe(true);
  });

  it('describes every endpoint under a name of its own, and nothing else', () => {
    const paths = openApi().paths as Record<string, Record<string, { operationId: string }>>;
    const described = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
    );
    expect(described.sort()).toEqual(endpoints.map(([key]) => key).sort());
    const names = Object.values(paths).flatMap((methods) => Object.values(methods).map((each) => each.operationId));
    expect(new Set(names).size).toBe(names.length);
  });

  it('says what may be null, what is a moment, and where named shapes are found', () => {
    const text = JSON.stringify(openApi());
    expect(text).toContain('"filedAt":{"type":["string","null"],"maxLength":1000000,"format":"date-time"}');
    expect(text).toContain('"$ref":"#/components/schemas/block"');
    expect(text).not.toContain('#/$defs/');
  });
});

describe('what people may do', () => {
  it('is known for every role, and said in words where it is not enough', () => {
    expect(whyNot('publish', ['author', 'reader'])).toBeUndefined();
    expect(whyNot('publish', ['reader'])).toBe(
      'To publish a template takes the role author. Ask an administrator for it.',
    );
    expect(whyNot('prove', [])).toBe(
      'To look at proofs takes the role author, producer or finance. Ask an administrator for it.',
    );
    for (const { roles } of Object.values(PERMISSIONS)) for (const role of roles) expect(ROLES).toContain(role);
  });
});
