import type { Composition } from '../../../core/production/composition';
import type { PlanStep } from '../../../core/template/plan';
import type { Connection, Database } from '../../db/database';
import type { documents, numbers, productions, steps } from '../../db/schema';
import type { Press } from '../../press/press';
import type { RecordId } from '../../records/source';

/** The steps of filing itself, and those of plans. */
export type StepKindName = 'number' | 'render' | 'attach' | PlanStep['type'];

/** A document that is on its way, with what it is made from and the step that is under way. */
export interface Filing {
  document: typeof documents.$inferSelect;
  production: typeof productions.$inferSelect;
  number: typeof numbers.$inferSelect;
  step: typeof steps.$inferSelect;
}

/** What steps work with. */
export interface StepServices {
  database: Database;
  press: Press;
}

/** What a step came to: it is written down in one transaction with the step's own end. */
export interface Finished {
  /** What changes in the document, if anything. */
  changes?: Partial<Filing['document']>;
  answer: Readonly<Record<string, string | number>>;
  /** What is told of it in the document's history. */
  told: readonly { kind: string; sentence: string }[];
  write?(transaction: Connection): Promise<void>;
}

/** One kind of step. It may be run again after any of its lines, and comes to the same. */
export interface StepKind {
  /** Whether an attempt that broke off may have done its work all the same, outside of Lumbix. */
  reachesOut: boolean;
  /** @throws Unfileable, or SourceError with a refusal, where the document can never be filed; anything else passes and is tried again. */
  run(filing: Filing, services: StepServices): Promise<Finished>;
}

/** The record that a document is of. */
export const recordOf = ({ recordType: type, recordId: id }: Filing['document']): RecordId => ({ type, id });

/** Why a document can never be filed, in a sentence: its number will be void. */
export class Unfileable extends Error {}

/** The sentence of the first finding that stops a composition. */
export const whatStops = ({ findings }: Pick<Composition, 'findings'>): string =>
  findings.find(({ severity }) => severity === 'stops')!.sentence;
