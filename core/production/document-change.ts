/** What is otherwise in one document than its template and its record say: for this document alone, and told beside its pages. */
import { blockList, type Block } from '../template/blocks';
import { wordingInlines, type WordingInline } from '../template/inlines';
import { boolean, byType, id, listOf, oneOf, sha256Hex, shape, text, uuid, type ShapeOf } from '../shape/shape';

/** A value that the record does not have, or has otherwise: by its path (`deal.lines{L-4}.unit_price`), as a person types it. */
export interface ValueChange {
  type: 'value';
  path: string;
  value: string;
}

/** A section that prints although its condition does not hold, or does not although it holds. */
export interface SectionChange {
  type: 'section';
  block: string;
  prints: boolean;
}

/** Running text in other words; the values in it are named by their ids and stay values. */
export interface WordsChange {
  type: 'words';
  /** Id of the node whose text it is. */
  block: string;
  content: WordingInline[];
}

/** A block that is not printed. */
export interface LeaveOutChange {
  type: 'leaveOut';
  block: string;
}

/** Blocks that are printed after another one. */
export interface AddChange {
  type: 'add';
  /** Id of the block before. */
  after: string;
  content: Block[];
}

/** A PDF that is joined to the end, after those that the template joins. */
export interface JoinChange {
  type: 'join';
  /** SHA-256 of its bytes, which are kept already. */
  file: string;
  /** Whether its pages count in “page 1 of 5”. */
  counted: boolean;
}

export type DocumentChange = ValueChange | SectionChange | WordsChange | LeaveOutChange | AddChange | JoinChange;

/** A change with who made it and when. */
export interface MadeChange {
  /** UUID, of whoever asked for it. */
  id: string;
  change: DocumentChange;
  /** What people call what it changes: “Line 4: unit price”. */
  label: string;
  by: string;
  /** ISO 8601. */
  at: string;
}

const MOST_ADDED = 50;
const MOST_CHANGES = 500;

export const documentChange = byType<DocumentChange>('documentChange', () => ({
  value: shape({
    type: oneOf(['value']).required(),
    path: text(1_000).min(1).required(),
    value: text(10_000).defined(),
  }).required(),
  section: shape({ type: oneOf(['section']).required(), block: id(), prints: boolean().required() }).required(),
  words: shape({ type: oneOf(['words']).required(), block: id(), content: wordingInlines().required() }).required(),
  leaveOut: shape({ type: oneOf(['leaveOut']).required(), block: id() }).required(),
  add: shape({
    type: oneOf(['add']).required(),
    after: id(),
    content: blockList().min(1).max(MOST_ADDED).required(),
  }).required(),
  join: shape({
    type: oneOf(['join']).required(),
    file: sha256Hex().required(),
    counted: boolean().required(),
  }).required(),
}));

/** A change that is asked for. */
export type WantedChange = Pick<MadeChange, 'id' | 'change' | 'label'>;
const wantedChange: ShapeOf<WantedChange> = shape({
  id: uuid().required(),
  change: documentChange,
  label: text(300).min(1).required(),
}).required();
export const wantedChanges = () => listOf(wantedChange, MOST_CHANGES);

/** What two changes are both about: the later one takes the place of the earlier. */
export function aboutSame(one: DocumentChange, other: DocumentChange): boolean {
  if (one.type !== other.type || one.type === 'add') return false;
  return subjectOf(one) === subjectOf(other);
}

/** What a change is about: a path, a block, a file. Of what is put in, the place is not it. */
function subjectOf(change: DocumentChange): string | undefined {
  switch (change.type) {
    case 'value':
      return change.path;
    case 'join':
      return change.file;
    case 'add':
      return undefined;
    default:
      return change.block;
  }
}
