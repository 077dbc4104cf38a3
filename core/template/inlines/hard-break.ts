import { plainInline, type PlainInline } from './plain';

/** A line end within a paragraph. */
export type HardBreak = PlainInline<'hardBreak'>;

export const hardBreak = plainInline('hardBreak', () => [{ kind: 'break' }]);
