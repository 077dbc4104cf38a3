import { plainInline } from './plain';

/** A line end within a paragraph. */
export const hardBreak = plainInline('hardBreak', () => [{ kind: 'break' }]);
