import type { PathTree } from '../../core/record/paths';
import type { RecordSchema } from '../../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../../core/record/snapshot';

/** Why a source did not do what was asked. */
export type SourceFailure = 'away' | 'refused' | 'conflict' | 'missing';

/** Something asked of a source that failed, with a sentence for people. `away` passes: the same may be answered later. */
export class SourceError extends Error {
  constructor(
    readonly failure: SourceFailure,
    message: string,
    readonly status?: number,
    /** Where the source surely did nothing: even what may not be done twice may be asked again, after so many milliseconds. */
    readonly again?: number,
  ) {
    super(message);
    this.name = 'SourceError';
  }
}

/** A record within its source. */
export interface RecordId {
  type: string;
  id: string;
}

/** A file on a record, as its source tells of it. */
export interface RecordFile {
  id: string;
  name: string;
  size: number;
  sha256: string;
}

/** What changed in a type of records. */
export interface Changes {
  changed: RecordSnapshot[];
  /** Ids of records that are not there any more. */
  removed: string[];
  /** Where the next changes are: at once, or when there are some. */
  link: string | null;
  isMore: boolean;
}

/** A file to be put on a record. */
export interface NewFile {
  name: string;
  bytes: Uint8Array;
  mediaType: string;
  repeat: Repeat;
  /** Id of the file on the record that it is the next revision of: where the source keeps revisions, it takes that one's place. */
  revises?: string;
}

/** Names a request, so that it does the same however often it is sent; and when it was sent first. */
export interface Repeat {
  id: string;
  firstSent: Date;
}

/** Something that was done about a record, to be written on it. */
export interface NewActivity {
  /** One of the kinds that the source knows. */
  kind: string;
  subject: string;
  text?: string;
}

/** Where records come from. Everything here throws SourceError. */
export interface RecordSource {
  /** What the source holds, as it says now. */
  schema(): Promise<RecordSchema>;
  /** One record with exactly the fields of a path tree. */
  read(record: RecordId, paths: PathTree): Promise<RecordSnapshot>;
  /** Many records by their ids, in their order; those that are not there are left out. */
  readMany(type: string, ids: readonly string[], paths: PathTree): Promise<RecordSnapshot[]>;
  /** The first records of a type by their ids, or the last. */
  list(type: string, paths: PathTree, query: { top: number; last?: boolean }): Promise<RecordSnapshot[]>;
  /**
   * What changed in a type of records since a link that this gave before, or all of its records without one. Its error has status 410
   * where the link is too old.
   */
  changes(type: string, paths: PathTree, link: string | null): Promise<Changes>;
  /** Changes fields of a record, if it is still the version that was seen; else fails with `conflict`. */
  change(
    record: RecordId,
    version: string,
    fields: Readonly<Record<string, FieldValue>>,
    repeat?: Repeat,
  ): Promise<void>;
  /** Writes an activity on a record, once. Asked once: whoever asks tries again by themselves. Gives its id. */
  addActivity(record: RecordId, activity: NewActivity, repeat: Repeat): Promise<string>;
  /** The files on a record. Asked once: whoever asks tries again by themselves. */
  files(record: RecordId): Promise<RecordFile[]>;
  /** Puts a file on a record exactly once: a new one, or the next revision of one that is there. Asked once, as above. */
  attach(record: RecordId, file: NewFile): Promise<RecordFile>;
  /** The bytes of a picture, by the link that its field holds. */
  picture(link: string): Promise<Uint8Array>;
}
