/** A template and a record as they are for one document, with what was changed for it alone. */
import type { RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { withInner, withWords, type Block } from '../template/blocks';
import type { Assembled } from '../template/assemble';
import { idsIn, withIds } from '../template/node';
import { withTried } from '../template/what-if';
import { everyBlock } from '../template/walk';
import { reworded } from '../template/wording';
import type { Inline } from '../template/inlines';
import type { Annex } from '../template/template';
import type { DocumentChange, MadeChange } from './document-change';

/** A change that had nothing to change: what it was about is gone. */
export interface LostChange {
  id: string;
  sentence: string;
}

/** The record with the values that were given for this document. */
export function withGivenValues(
  record: RecordSnapshot,
  changes: readonly MadeChange[],
  schema: RecordSchema,
): { record: RecordSnapshot; lost: LostChange[] } {
  const lost: LostChange[] = [];
  let changed = record;
  for (const { id, change } of changes) {
    if (change.type !== 'value') continue;
    const tried = withTried(changed, [change], schema);
    changed = tried.record;
    lost.push(...tried.faults.map((sentence) => ({ id, sentence })));
  }
  return { record: changed, lost };
}

/** An assembled template that was changed for one document. */
interface ChangedBlocks {
  assembled: Assembled;
  lost: LostChange[];
  /** What was left out beside blocks that stay, by their ids. */
  gone: ReadonlyMap<string, readonly MadeChange[]>;
}

/** The assembled template with its blocks and the files that are joined to it as they are for this document. */
export function withChangedBlocks(
  assembled: Assembled,
  changes: readonly MadeChange[],
  whole: (blocks: readonly Block[]) => Block[],
): ChangedBlocks {
  const joined = changes.flatMap((made) => joinedBy(made) ?? []);
  const own = changes.filter(({ change }) => change.type !== 'value' && change.type !== 'join');
  if (own.length + joined.length === 0) return { assembled, lost: [], gone: new Map() };
  const changer = new BlockChanger(own, whole);
  const { layout, annexes = [] } = assembled.template;
  const body = changer.changed(layout.body);
  const template = { ...assembled.template, layout: { ...layout, body }, annexes: [...annexes, ...joined] };
  return { assembled: { ...assembled, template }, lost: changer.lost(), gone: changer.gone };
}

/** What a change joins to the end, as a template joins its own; undefined for any other change. */
function joinedBy({ id, change, label }: MadeChange): Annex | undefined {
  if (change.type !== 'join') return undefined;
  return { id, label, file: `"${change.file}"`, counted: change.counted };
}

type Of<Type extends DocumentChange['type']> = Extract<DocumentChange, { type: Type }>;

class BlockChanger {
  readonly #found = new Set<string>();
  readonly gone = new Map<string, readonly MadeChange[]>();
  /** What was left out of blocks that hold nothing any more: it is told beside what follows them. */
  readonly #homeless: MadeChange[] = [];

  /** `whole`: makes blocks that are put in whole, with the clauses that they name. */
  constructor(
    readonly changes: readonly MadeChange[],
    readonly whole: (blocks: readonly Block[]) => Block[],
  ) {}

  /** Those of a kind about a block, noted as found. */
  #about<Type extends DocumentChange['type']>(type: Type, block: string): (MadeChange & { change: Of<Type> })[] {
    const its = this.changes.filter(
      ({ change }) =>
        change.type === type && (change.type === 'add' ? change.after : 'block' in change && change.block) === block,
    );
    for (const { id } of its) this.#found.add(id);
    return its as unknown as (MadeChange & { change: Of<Type> })[];
  }

  changed(blocks: readonly Block[]): Block[] {
    let gone: MadeChange[] = [];
    const stay = blocks.flatMap((block) => {
      const { id } = block.attrs;
      const added = this.#about('add', id).flatMap((each) =>
        this.whole(each.change.content.map((one) => withIds(one, (inner) => addedId(each.id, inner)))),
      );
      const leftOut = carriesSums(block) ? [] : this.#about('leaveOut', id);
      const left = [...(leftOut.length > 0 ? [] : [this.#inside(block)]), ...added];
      gone.push(...leftOut);
      if (left.length > 0 && gone.length > 0) {
        this.gone.set(left[0]!.attrs.id, gone);
        gone = [];
      }
      gone.push(...this.#homeless.splice(0));
      return left;
    });
    const last = stay.at(-1)?.attrs.id;
    if (last === undefined) this.#homeless.push(...gone);
    else if (gone.length > 0) this.gone.set(last, [...(this.gone.get(last) ?? []), ...gone]);
    return stay;
  }

  #inside(block: Block): Block {
    const said = withWords(block, {
      content: (key, inlines): { content?: Inline[] } => {
        const [words] = inlines ? this.#about('words', key) : [];
        if (!words) return inlines ? { content: [...inlines] } : {};
        return reworded({ content: [...inlines!] }, { of: '', content: words.change.content }) as { content: Inline[] };
      },
      text: (_, words) => words,
    });
    return withInner(this.#switched(said), (inner) => this.changed(inner));
  }

  #switched(block: Block): Block {
    const [section] = block.type === 'whenSection' ? this.#about('section', block.attrs.id) : [];
    if (!section || block.type !== 'whenSection') return block;
    return { ...block, attrs: { ...block.attrs, when: section.change.prints ? 'true' : 'false' } };
  }

  lost(): LostChange[] {
    return this.changes
      .filter(({ id }) => !this.#found.has(id))
      .map(({ id }) => ({
        id,
        sentence: 'What was changed here is not in the document any more. Take the change back.',
      }));
  }
}

/** The id of a block that was put in by a change. */
const addedId = (change: string, block: string): string => `${change}.${block}`;

/** The ids under which a change is seen on the page. */
export function placesOf({ id, change }: MadeChange): string[] {
  if (change.type === 'add')
    return change.content.flatMap((block) => [...idsIn(block)].map((each) => addedId(id, each.id)));
  return change.type === 'words' || change.type === 'section' ? [change.block] : [];
}

/** Whether a block prints sums, or what adds up to them: then it cannot be left out. */
export const carriesSums = (block: Block): boolean =>
  everyBlock([block]).some(({ type }) => type === 'lineTable' || type === 'totals');
