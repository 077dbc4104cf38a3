import { blockList } from './blocks';
import { id, label, mapOf, shape, type InferType } from '../shape/shape';
import { words } from './wording';

/** Words that many templates share: terms, warranties. A template version pins those it refers to. */
export const clause = shape({
  id: id(),
  name: label(),
  content: blockList().required(),
  /** Translations by language (BCP 47, without region). */
  words: mapOf(words()),
}).required();
export type Clause = InferType<typeof clause>;
