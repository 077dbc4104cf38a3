import { LRUCache } from 'lru-cache';
import { fieldAt } from '../../core/record/field-at';
import { composing, lastSheet, type Composing } from '../../core/production/compose';
import type { Typesetter } from '../../render/typst/typesetter';
import type { CompositionInput } from './press';
import { proofContent, type ProofContent } from './proof-answer';

/** What a proof was asked with. */
export interface Asked {
  input: CompositionInput;
  /** Names the input: equal inputs have the same name. */
  inputName: string;
  /** Names the proof, whatever its input is called later on. */
  key: string;
}

interface Kept {
  composing: Composing;
  /** Absent until its pages were set. */
  content?: ProofContent;
}

/** How much is kept: in letters of drawings, and as what a composition counts. */
const MOST = 24_000_000;
const COMPOSITION = 1_000_000;
const sizeOf = ({ content }: Kept) => {
  const { glyphs, pages } = content?.pages ?? { glyphs: undefined, pages: [] };
  return [glyphs, ...pages].reduce((sum, part) => sum + (part?.drawing?.length ?? 0), COMPOSITION);
};

/**
 * The last proofs of a process of the press. The same input makes the same document, so a record that did not change is neither
 * composed nor set again when someone comes back to it.
 */
export class ProofsAtHand {
  readonly #byInput = new LRUCache<string, Kept>({ maxSize: MOST, sizeCalculation: sizeOf });
  /** Names of inputs by the proofs that were made of them. */
  readonly #inputs = new LRUCache<string, string>({ max: 64 });

  readonly #makeSheet = lastSheet();

  constructor(readonly typesetter: Typesetter) {}

  composed(asked: Asked): Composing {
    return this.#kept(asked).composing;
  }

  /** @throws TypesettingError */
  content(asked: Asked): ProofContent {
    const kept = this.#kept(asked);
    if (kept.content) return kept.content;
    const { composition } = kept.composing;
    const { snapshot, context } = asked.input;
    const pages = this.typesetter.proof(composition.document, composition.assets);
    const { changes = [] } = context;
    const given = changes.flatMap(({ change }) => (change.type === 'value' ? [change.path] : []));
    const content = proofContent(composition, pages, given, (path) => fieldAt(path, snapshot, context.schema));
    this.#byInput.set(this.#inputs.get(asked.key)!, { ...kept, content });
    return content;
  }

  #kept({ input, inputName, key }: Asked): Kept {
    const name = this.#inputs.get(key) ?? inputName;
    this.#inputs.set(key, name);
    let kept = this.#byInput.get(name);
    if (!kept) {
      kept = { composing: composing(input.template, input.snapshot, input.context, this.#makeSheet) };
      this.#byInput.set(name, kept);
    }
    return kept;
  }
}
