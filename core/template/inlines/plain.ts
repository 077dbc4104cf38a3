import { oneOf, shape, type ShapeOf } from '../../shape/shape';
import type { Composer } from '../composer';
import type { Run } from '../composed';
import { unchanged, type InlineKind } from './kind';

/** An inline that is nothing but its kind. */
export interface PlainInline<Type extends string> {
  type: Type;
}

/** The kind of a plain inline, by what it prints. */
export function plainInline<Type extends string>(
  type: Type,
  runs: (composer: Composer) => Run[],
): InlineKind<PlainInline<Type>> {
  // Yup's types do not see through a type that is a parameter.
  const plainShape = shape({ type: oneOf([type]).required() }).required() as unknown as ShapeOf<PlainInline<Type>>;
  return {
    shape: plainShape,
    wordingShape: plainShape,
    mapFormulas: unchanged,
    seen: () => [type],
    compose: (_, composer) => runs(composer),
  };
}
