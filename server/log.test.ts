import { describe, expect, it } from 'vitest';
import { withoutData } from './log';

describe('an error as it stands in a log', () => {
  it('names a fault of the code by its sentence and its place', () => {
    const told = withoutData(new TypeError('x is not a function')) as {
      error: string;
      message: string;
      stack: string[];
    };
    expect(told).toMatchObject({ error: 'TypeError', message: 'x is not a function' });
    expect(told.stack[0]).toMatch(/^at .*log\.test\.ts/);
  });

  it('holds nothing that a record says, through all its causes', () => {
    const database = Object.assign(new Error('invalid input syntax for type uuid: "Wren Nurseries"'), {
      code: '22P02',
      severity: 'ERROR',
      detail: 'Key (name)=(Wren Nurseries) already exists.',
      table: 'documents',
    });
    const outer = new Error('Failed query: insert … params: Wren Nurseries, 96665.60', { cause: database });
    const told = JSON.stringify(withoutData(outer));
    expect(told).not.toContain('Wren');
    expect(told).not.toContain('96665');
    expect(told).toContain('"code":"22P02"');
    expect(told).toContain('"table":"documents"');
    expect(JSON.stringify(withoutData('Wren'))).toBe('{"error":"string"}');
    expect(JSON.stringify(withoutData(new SyntaxError('Unexpected token "Wren"')))).not.toContain('Wren');
  });

  it('tells that connections ran out or broke off, which quotes nothing', () => {
    expect(withoutData(new Error('timeout exceeded when trying to connect'))).toMatchObject({
      message: 'timeout exceeded when trying to connect',
    });
  });
});
