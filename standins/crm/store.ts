import { createHash, randomUUID } from 'node:crypto';
import type pg from 'pg';
import type { Body } from './filter';
import type { Renaming } from './model';

/** A record with the version its entity tag is made from. */
export interface StoredRecord {
  id: string;
  version: number;
  body: Body;
}

export interface Attachment {
  id: string;
  /** The record that it is on. */
  set: string;
  record_id: string;
  name: string;
  content_type: string;
  size: number;
  sha256: string;
  /** How many contents it has had: the earlier ones are kept. */
  revision: number;
  created_at: string;
}

/** A file that comes in. */
export interface NewContent {
  name: string;
  contentType: string;
  content: Buffer;
  at: Date;
}

/** A record as of its last change, or that it was deleted. */
export interface Change {
  id: string;
  changed: string;
  record?: StoredRecord;
}

const SCHEMA = `
  create table if not exists records (
    set text not null, id text not null, position bigserial, version integer not null default 1, body jsonb not null,
    primary key (set, id));
  create table if not exists attachments (
    id uuid primary key, record_id text not null, name text not null, content_type text not null, size integer not null,
    sha256 text not null, content bytea not null, created_at timestamptz not null default now());
  -- Files were kept for deals alone at first.
  do $$ begin
    alter table attachments rename column deal_id to record_id;
  exception when undefined_column then null; end $$;
  alter table attachments add column if not exists set text not null default 'Deals';
  drop index if exists attachments_deal;
  create index if not exists attachments_record on attachments (set, record_id);
  alter table attachments add column if not exists revision integer not null default 1;
  create table if not exists attachment_revisions (
    attachment_id uuid not null references attachments (id) on delete cascade, revision integer not null, name text not null,
    content_type text not null, size integer not null, sha256 text not null, content bytea not null,
    created_at timestamptz not null, primary key (attachment_id, revision));
  create table if not exists media (name text primary key, content_type text not null, content bytea not null);
  create table if not exists repeatable_requests (
    id text primary key, status integer not null, location text, body text not null, received_at timestamptz not null default now());
  create table if not exists renamings (
    position bigserial primary key, type text not null, name_before text not null, name_after text not null);
  create sequence if not exists changes;
  alter table records add column if not exists changed bigint not null default nextval('changes');
  create index if not exists records_changed on records (set, changed);
  create table if not exists removed (
    set text not null, id text not null, changed bigint not null default nextval('changes'), primary key (set, id));
  create or replace function note_change() returns trigger language plpgsql as $$
  begin
    -- One change after the other, so that a number is seen only once all before it are.
    perform pg_advisory_xact_lock(20261126);
    if tg_op = 'DELETE' then
      insert into removed (set, id) values (old.set, old.id) on conflict (set, id) do update set changed = nextval('changes');
      return old;
    end if;
    new.changed = nextval('changes');
    if new.set = 'Contacts' and new.body ? 'family_name' then
      new.body = new.body || jsonb_build_object('name', concat_ws(' ', new.body ->> 'given_name', new.body ->> 'family_name'));
    end if;
    return new;
  end $$;
  create or replace trigger records_change before insert or update or delete on records for each row execute function note_change();
  -- Contacts had no name of their own at first.
  update records set body = body where set = 'Contacts' and not body ? 'name';
`;

/** The columns of an attachment, without its content. */
const ATTACHMENT = 'id, set, record_id, name, content_type, size, sha256, revision, created_at';

/** The stand-in's own database. */
export class Store {
  constructor(readonly pool: pg.Pool) {}

  async prepare(): Promise<void> {
    await this.pool.query(SCHEMA);
  }

  /** Fields that were renamed, in the order in which they were. */
  async renamings(): Promise<Renaming[]> {
    const { rows } = await this.pool.query(
      'select type, name_before "from", name_after "to" from renamings order by position',
    );
    return rows as Renaming[];
  }

  /** Keeps that a field was renamed, and renames it in all records of its set. */
  async rename(set: string, { type, from, to }: Renaming): Promise<void> {
    await this.pool.query(
      `with kept as (insert into renamings (type, name_before, name_after) values ($2, $3, $4))
       update records set body = body - $3 || jsonb_build_object($4::text, body -> $3), version = version + 1
       where set = $1 and body ? $3`,
      [set, type, from, to],
    );
  }

  async isEmpty(): Promise<boolean> {
    const { rows } = await this.pool.query('select 1 from records limit 1');
    return rows.length === 0;
  }

  async load(sets: Readonly<Record<string, readonly (Body & { id: string })[]>>): Promise<void> {
    for (const [set, bodies] of Object.entries(sets)) {
      await this.pool.query(
        `insert into records (set, id, body) select $1, r->>'id', r from jsonb_array_elements($2::jsonb) r on conflict do nothing`,
        [set, JSON.stringify(bodies)],
      );
    }
  }

  async loadMedia(media: Readonly<Record<string, { type: string; content: Buffer }>>): Promise<void> {
    for (const [name, { type, content }] of Object.entries(media)) {
      await this.pool.query(
        'insert into media (name, content_type, content) values ($1, $2, $3) on conflict do nothing',
        [name, type, content],
      );
    }
  }

  async media(name: string): Promise<{ content_type: string; content: Buffer } | undefined> {
    const { rows } = await this.pool.query('select content_type, content from media where name = $1', [name]);
    return rows[0] as { content_type: string; content: Buffer } | undefined;
  }

  /** The records whose property has a value: those that belong to another record, by its id. */
  async having(set: string, key: string, value: string): Promise<StoredRecord[]> {
    const { rows } = await this.pool.query(
      'select id, version, body from records where set = $1 and body ->> $2 = $3 order by position',
      [set, key, value],
    );
    return rows as StoredRecord[];
  }

  async all(set: string): Promise<StoredRecord[]> {
    const { rows } = await this.pool.query('select id, version, body from records where set = $1 order by position', [
      set,
    ]);
    return rows as StoredRecord[];
  }

  async one(set: string, id: string): Promise<StoredRecord | undefined> {
    const { rows } = await this.pool.query('select id, version, body from records where set = $1 and id = $2', [
      set,
      id,
    ]);
    return rows[0] as StoredRecord | undefined;
  }

  /**
   * Changes a record if it still has the version; gives the new version, or undefined if somebody was faster. With a repeatability id the
   * answer is kept with the change, as for files.
   */
  async change(
    set: string,
    id: string,
    version: number,
    changes: Body,
    repeatabilityId?: string,
  ): Promise<number | undefined> {
    return this.#once(repeatabilityId, async (client) => {
      const { rows } = await client.query(
        'update records set body = body || $4::jsonb, version = version + 1 where set = $1 and id = $2 and version = $3 returning version',
        [set, id, version, JSON.stringify(changes)],
      );
      const result = (rows[0] as { version: number } | undefined)?.version;
      return { result, ...(result !== undefined && { answer: { status: 204, location: '', body: null } }) };
    });
  }

  /** Keeps a new record. */
  async add(set: string, body: Body & { id: string }, repeatabilityId?: string): Promise<void> {
    await this.#once(repeatabilityId, async (client) => {
      await client.query('insert into records (set, id, body) values ($1, $2, $3)', [set, body.id, body]);
      return { result: undefined, answer: { status: 201, location: `${set}('${body.id}')`, body } };
    });
  }

  /**
   * What changed in a set after a number, in its order, at most so many: the records themselves, or those that one of these relations
   * leads to. Deletions are told after the first time.
   */
  async changesSince(
    set: string,
    since: string,
    limit: number,
    relations: readonly { set: string; key: string }[],
  ): Promise<Change[]> {
    const joined = relations.map(
      (_, at) => `left join records r${at} on r${at}.set = $${4 + 2 * at} and r${at}.id = r.body ->> $${5 + 2 * at}`,
    );
    const changed = `greatest(${['r.changed', ...relations.map((_, at) => `r${at}.changed`)].join(', ')})`;
    const { rows } = await this.pool.query(
      `select id, changed, version, body from (
         select r.id, ${changed} changed, r.version, r.body from records r ${joined.join(' ')} where r.set = $1
         union all select id, changed, null, null from removed where set = $1 and $2::bigint > 0
           and not exists (select 1 from records where records.set = removed.set and records.id = removed.id)
       ) each where changed > $2::bigint order by changed, id limit $3`,
      [set, since, limit, ...relations.flatMap((each) => [each.set, each.key])],
    );
    return (rows as (StoredRecord & Change)[]).map(({ id, changed: at, version, body }) => ({
      id,
      changed: at,
      ...(body && { record: { id, version, body } }),
    }));
  }

  async attachments(set: string, id: string): Promise<Attachment[]> {
    const { rows } = await this.pool.query(
      `select ${ATTACHMENT} from attachments where set = $1 and record_id = $2 order by created_at, id`,
      [set, id],
    );
    return rows as Attachment[];
  }

  /** What an attachment holds, or held as one of its earlier revisions. */
  async attachmentContent(
    id: string,
    revision?: number,
  ): Promise<{ name: string; content_type: string; content: Buffer } | undefined> {
    const columns = 'name, content_type, content';
    const { rows } =
      revision === undefined
        ? await this.pool.query(`select ${columns} from attachments where id::text = $1`, [id])
        : await this.pool.query(
            `select ${columns} from attachment_revisions where attachment_id::text = $1 and revision = $2`,
            [id, revision],
          );
    return rows[0] as { name: string; content_type: string; content: Buffer } | undefined;
  }

  /**
   * Keeps a file on a record. With a repeatability id, the file and the answer are kept in one transaction, so that a
   * repeated request gets the first one's answer and nothing is stored twice.
   */
  async attach(
    set: string,
    id: string,
    { name, contentType, content, at }: NewContent,
    repeatabilityId?: string,
  ): Promise<Attachment> {
    return this.#once(repeatabilityId, async (client) => {
      const { rows } = await client.query(
        `insert into attachments (id, set, record_id, name, content_type, size, sha256, content, created_at)
         values ($1,$2,$3,$4,$5,$6,$7,$8,$9)
         returning ${ATTACHMENT}`,
        [randomUUID(), set, id, name, contentType, content.length, sha256(content), content, at],
      );
      const attachment = rows[0] as Attachment;
      const answer = { status: 201, location: `Attachments('${attachment.id}')`, body: attachment };
      return { result: attachment, answer };
    });
  }

  /** Puts another content in the place of an attachment's, which is kept as its revision. Undefined where there is no such attachment. */
  async revise(
    { set, recordId, id }: { set: string; recordId: string; id: string },
    { name, contentType, content, at }: NewContent,
    repeatabilityId?: string,
  ): Promise<Attachment | undefined> {
    return this.#once(repeatabilityId, async (client) => {
      const { rowCount } = await client.query(
        `insert into attachment_revisions (attachment_id, revision, name, content_type, size, sha256, content, created_at)
         select id, revision, name, content_type, size, sha256, content, created_at from attachments
         where id::text = $1 and set = $2 and record_id = $3 for update`,
        [id, set, recordId],
      );
      if (rowCount === 0) return { result: undefined };
      const { rows } = await client.query(
        `update attachments set revision = revision + 1, name = $2, content_type = $3, size = $4, sha256 = $5, content = $6,
           created_at = $7
         where id::text = $1 returning ${ATTACHMENT}`,
        [id, name, contentType, content.length, sha256(content), content, at],
      );
      const result = rows[0] as Attachment;
      return { result, answer: { status: 200, location: '', body: result } };
    });
  }

  /** The contents that an attachment had before, the earliest first. */
  async revisions(id: string): Promise<Pick<Attachment, 'revision' | 'name' | 'size' | 'sha256' | 'created_at'>[]> {
    const { rows } = await this.pool.query(
      `select revision, name, size, sha256, created_at from attachment_revisions where attachment_id::text = $1 order by revision`,
      [id],
    );
    return rows as Attachment[];
  }

  /** Does something in one transaction, and keeps its answer in it under a repeatability id, if there is one. */
  async #once<T>(
    repeatabilityId: string | undefined,
    act: (
      client: pg.PoolClient,
    ) => Promise<{ result: T; answer?: { status: number; location: string; body: object | null } }>,
  ): Promise<T> {
    const client = await this.pool.connect();
    try {
      await client.query('begin');
      const { result, answer } = await act(client);
      if (repeatabilityId && answer)
        await client.query('insert into repeatable_requests (id, status, location, body) values ($1, $2, $3, $4)', [
          repeatabilityId,
          answer.status,
          answer.location,
          JSON.stringify(answer.body),
        ]);
      await client.query('commit');
      return result;
    } catch (problem) {
      await client.query('rollback');
      throw problem;
    } finally {
      client.release();
    }
  }

  /** The answer that a repeatable request got the first time. */
  async answered(repeatabilityId: string): Promise<{ status: number; location: string; body: string } | undefined> {
    const { rows } = await this.pool.query('select status, location, body from repeatable_requests where id = $1', [
      repeatabilityId,
    ]);
    return rows[0] as { status: number; location: string; body: string } | undefined;
  }
}

const sha256 = (content: Buffer) => createHash('sha256').update(content).digest('hex');
