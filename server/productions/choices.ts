import { eq } from 'drizzle-orm';
import { aboutSame, type AddChange, type MadeChange, type WantedChange } from '../../core/production/document-change';
import type { Choices } from '../../core/production/production';
import type { Clause } from '../../core/template/clause';
import { own } from '../../core/record/own';
import type { Block } from '../../core/template/blocks';
import { formulasIn } from '../../core/template/formulas';
import type { TemplateFile } from '../../core/template/template-file';
import { everyBlock } from '../../core/template/walk';
import { now } from '../clock';
import { keptFiles } from '../assets';
import type { Connection } from '../db/database';
import { clauses as clauseTable } from '../db/schema';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import type { PublishedTemplate } from './template';

/** What is asked for in place of what was chosen before: where no changes are said, those that are in hand stay. */
export interface WantedChoices {
  choices: Omit<Choices, 'changes'>;
  changes?: readonly WantedChange[];
}

/** What is chosen: what was `before`, with what is asked for in its place. @throws Problem for what cannot be chosen */
export async function chosen(
  connection: Connection,
  { choices, changes }: WantedChoices,
  before: Choices,
  published: PublishedTemplate,
  caller: Caller,
): Promise<Choices> {
  const made = changes ? madeBy(changes, before.changes ?? [], caller) : (before.changes ?? []);
  const { changes: _, clauses: kept = [], files: known = {}, skips: _skips, ...others } = before;
  const blocks = made.flatMap(({ change }) => (change.type === 'add' ? everyBlock(change.content) : []));
  const [clauses, files] = await Promise.all([
    clausesIn(connection, blocks, kept),
    filesIn(connection, made, blocks, known),
  ]);
  const all = {
    ...(changes === undefined ? others : {}),
    ...choices,
    ...(made.length > 0 && { changes: made }),
    ...(clauses.length > 0 && { clauses }),
    ...(Object.keys(files).length > 0 && { files }),
  };
  refuseUnknownChoices(published, all);
  return all;
}

/** Changes with who made each and when; those that were there keep theirs. A change takes the place of an earlier one of the same thing. */
function madeBy(wanted: readonly WantedChange[], before: readonly MadeChange[], caller: Caller): MadeChange[] {
  const made = wanted.map(
    (each) => before.find(({ id }) => id === each.id) ?? { ...each, by: caller.name, at: now().toISOString() },
  );
  for (const { change } of made) if (change.type === 'add') refuseFormulas(change);
  return made.filter(({ change }, at) => !made.slice(at + 1).some((later) => aboutSame(change, later.change)));
}

const PLAIN: readonly string[] = ['paragraph', 'heading', 'bulletList', 'numberedList', 'clause', 'space', 'picture'];

/** What is put in by hand is words, pictures and clauses: numbers come from figures. @throws Problem */
function refuseFormulas({ content }: AddChange): void {
  const isPlain = everyBlock(content).every(
    (block) => PLAIN.includes(block.type) && (block.type !== 'picture' || block.attrs.file !== undefined),
  );
  if (!isPlain || formulasIn(content).length > 0)
    throw new Problem(
      422,
      'Only words, pictures and clauses can be put in',
      'Values and tables belong to the template. Ask an author to add them there.',
    );
}

/** The clauses that are put in: as they were when each was. @throws Problem for one that is not there */
async function clausesIn(connection: Connection, blocks: readonly Block[], kept: readonly Clause[]): Promise<Clause[]> {
  const names = [...new Set(blocks.flatMap((block) => (block.type === 'clause' ? block.attrs.clause : [])))];
  const all: Clause[] = [];
  for (const name of names) {
    const known = kept.find(({ id }) => id === name);
    const [row] = known ? [] : await connection.select().from(clauseTable).where(eq(clauseTable.id, name));
    const clause = known ?? row?.body;
    if (!clause) throw new Problem(422, 'No such clause', 'This clause is not here any more. Choose another one.');
    all.push(clause);
  }
  return all;
}

/** The pictures and PDFs that are put in, by their hashes. @throws Problem for one that is not here, or cannot stand where it is put */
async function filesIn(
  connection: Connection,
  made: readonly MadeChange[],
  blocks: readonly Block[],
  kept: NonNullable<Choices['files']>,
): Promise<NonNullable<Choices['files']>> {
  const pictures = blocks.flatMap((block) => (block.type === 'picture' ? [block.attrs.file!] : []));
  const joined = made.flatMap(({ change }) => (change.type === 'join' ? [change.file] : []));
  const all = [...new Set([...pictures, ...joined])];
  const unknown = all.filter((hash) => !own(kept, hash));
  const read: Record<string, TemplateFile> = await keptFiles(connection, unknown);
  const found = all.map((hash) => own(kept, hash) ?? own(read, hash));
  const isPdf = (hash: string) => found[all.indexOf(hash)]?.mediaType === 'application/pdf';
  if (found.includes(undefined))
    throw new Problem(422, 'No such file', 'This file is not here any more. Choose it again.');
  if (pictures.some(isPdf) || !joined.every(isPdf))
    throw new Problem(
      422,
      'This file cannot stand there',
      'Pictures are put in among the words, and PDFs are joined to the end. Choose a file of that kind.',
    );
  return Object.fromEntries(all.map((hash, at) => [hash, found[at]!]));
}

/** Refuses a plan, an edition or a house style that the template does not have. @throws Problem */
function refuseUnknownChoices({ template, pins }: PublishedTemplate, { plan, edition, houseStyle }: Choices): void {
  const chosen = [
    ['plan', plan, template.plans.map(({ id }) => id)],
    ['edition', edition, template.editions.map(({ id }) => id)],
    ['house style', houseStyle, pins.houseStyles.map(({ id }) => id)],
  ] as const;
  for (const [what, id, known] of chosen) {
    if (id === undefined || known.includes(id)) continue;
    throw new Problem(
      422,
      `The template has no such ${what}`,
      `Choose one of these: ${known.join(', ')}. Or choose none: then the template decides.`,
    );
  }
}
