import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import pg from 'pg';
import { openDatabase } from '../../server/db/database';
import { addVersion, makeCurrent } from '../../server/db/shipped';
import { currentTemplate } from '../../server/productions/template';
import { newKeyLine } from '../../server/secrets/keys';
import type { Fault } from '../../standins/faults';

/**
 * The real things that the server's tests run against: databases of their own in the test cluster, the CRM stand-in as
 * a process, and filing workers as processes that can be killed. `./test` gives the cluster's address.
 */
const cluster = process.env.LUMBIX_TEST_CLUSTER;
const CRM_PORT = Number(process.env.LUMBIX_TEST_CRM_PORT ?? 4713);
const crmUrl = `http://127.0.0.1:${CRM_PORT}`;
const build = join(process.cwd(), '.build');

export interface Stack {
  /** Does something to a deal or a line in the CRM, behind Lumbix's back. */
  changeInCrm(set: 'Deals' | 'LineItems' | 'Accounts', id: string, changes: object): Promise<void>;
  deleteInCrm(set: 'Deals', id: string): Promise<void>;
  /** Gives a field another name, as whoever runs the CRM does on its page. */
  renameInCrm(type: string, from: string, to: string): Promise<void>;
  /** The files on a record; on a deal where no set is said. */
  attachments(
    id: string,
    set?: string,
  ): Promise<{ name: string; sha256: string; revision: number; created_at: Date }[]>;
  /** How many contents the files of a record have had: each is one more, or the next revision of one. */
  contents(id: string): Promise<number>;
  deleteAttachments(dealId: string): Promise<void>;
  /** A record as the CRM has it. */
  recordInCrm(set: 'Deals' | 'LineItems', id: string): Promise<Record<string, unknown>>;
  /** Has the CRM hold other bytes than it was sent. */
  changeAttachment(dealId: string, name: string, sha256: string): Promise<void>;
  /** Publishes a template again as it is, as its next version. */
  republish(templateId: string): Promise<void>;
  fault(fault: Fault): Promise<void>;
  clearFaults(): Promise<void>;
  /** Gives a worker that is ready. `environment`: what it is told otherwise than the others. */
  startWorker(environment?: Record<string, string>): Promise<ChildProcess>;
  stopWorkers(): Promise<void>;
  stopCrm(): Promise<void>;
  startCrm(): Promise<void>;
  close(): Promise<void>;
}

/**
 * Makes fresh databases and starts the CRM stand-in on them. `restored` puts an older database in the place of Lumbix's, before
 * it is brought up to date.
 */
export async function openStack(restored?: (url: string) => Promise<void>): Promise<Stack> {
  if (!cluster) throw new Error('LUMBIX_TEST_CLUSTER is not set; run the tests with ./test.');
  const urls = { lumbix: `${cluster}/server_lumbix`, crm: `${cluster}/server_crm` };
  await freshDatabases(['server_lumbix', 'server_crm']);
  Object.assign(process.env, {
    DATABASE_URL: urls.lumbix,
    CRM_URL: crmUrl,
    LUMBIX_BUILD: build,
    LUMBIX_DEMO: 'yes',
    // What a killed worker leaves behind is taken up soon.
    LUMBIX_JOB_EXPIRY: '2',
    LUMBIX_KEYS: newKeyLine(),
  });
  await restored?.(urls.lumbix);
  await finished(run('migrate.mjs'));
  const crmPool = new pg.Pool({ connectionString: urls.crm, max: 2 });
  const workers = new Set<ChildProcess>();
  let crm: ChildProcess;

  const stack: Stack = {
    async changeInCrm(set, id, changes) {
      await crmPool.query(
        'update records set body = body || $3::jsonb, version = version + 1 where set = $1 and id = $2',
        [set, id, JSON.stringify(changes)],
      );
    },
    async deleteInCrm(set, id) {
      await crmPool.query('delete from records where set = $1 and id = $2', [set, id]);
    },
    async attachments(id, set = 'Deals') {
      const { rows } = await crmPool.query(
        'select name, sha256, revision, created_at from attachments where record_id = $1 and set = $2 order by created_at',
        [id, set],
      );
      return rows as { name: string; sha256: string; revision: number; created_at: Date }[];
    },
    async contents(id) {
      const { rows } = await crmPool.query(
        'select coalesce(sum(revision), 0)::int count from attachments where record_id = $1',
        [id],
      );
      return (rows[0] as { count: number }).count;
    },
    async deleteAttachments(dealId) {
      await crmPool.query('delete from attachments where record_id = $1', [dealId]);
    },
    async recordInCrm(set, id) {
      const { rows } = await crmPool.query('select body from records where set = $1 and id = $2', [set, id]);
      return (rows[0] as { body: Record<string, unknown> }).body;
    },
    async changeAttachment(dealId, name, sha256) {
      await crmPool.query('update attachments set sha256 = $3 where record_id = $1 and name = $2', [
        dealId,
        name,
        sha256,
      ]);
      // The answer that it remembers of the request says so too.
      await crmPool.query(
        "update repeatable_requests set body = (body::jsonb || jsonb_build_object('sha256', $1::text))::text",
        [sha256],
      );
    },
    async republish(templateId) {
      const { database } = openDatabase();
      const { template, pins } = await currentTemplate(database, templateId);
      const { id } = await addVersion(database, template, pins, { origin: 'made' });
      await makeCurrent(database, template, id);
    },
    async renameInCrm(type, from, to) {
      const body = new URLSearchParams({ type, from, to });
      const { status } = await fetch(`${crmUrl}/fields`, { method: 'POST', body, redirect: 'manual' });
      if (status !== 303) throw new Error(`The CRM did not rename ${from}: ${status}`);
    },
    async fault(fault) {
      await fetch(`${crmUrl}/faults`, { method: 'POST', body: JSON.stringify(fault) });
    },
    async clearFaults() {
      await fetch(`${crmUrl}/faults`, { method: 'DELETE' });
    },
    async startWorker(environment) {
      const worker = run('worker.mjs', environment);
      workers.add(worker);
      await new Promise<void>((ready, failed) => {
        worker.stdout!.on('data', (chunk: Buffer) => chunk.includes('ready') && ready());
        worker.once('exit', (code) => failed(new Error(`The worker ended with ${code}.`)));
      });
      return worker;
    },
    async stopCrm() {
      await stop(crm);
    },
    async startCrm() {
      crm = run('crm.mjs', { CRM_DATABASE_URL: urls.crm, CRM_PORT: String(CRM_PORT) });
      await until(async () => (await fetch(`${crmUrl}/health`)).ok);
    },
    async stopWorkers() {
      for (const worker of workers) await stop(worker);
      workers.clear();
    },
    async close() {
      await crmPool.end();
      await stack.stopWorkers();
      await stop(crm);
    },
  };
  await stack.startCrm();
  return stack;
}

/** Waits until something holds; what throws does not hold yet. */
export async function until(holds: () => Promise<boolean>, within = 20_000): Promise<void> {
  const end = Date.now() + within;
  for (;;) {
    if (await holds().catch(() => false)) return;
    if (Date.now() > end) throw new Error('It did not come about in time.');
    await new Promise((done) => setTimeout(done, 40));
  }
}

async function freshDatabases(names: string[]): Promise<void> {
  const client = new pg.Client({ connectionString: `${cluster}/postgres` });
  await client.connect();
  for (const name of names) {
    await client.query(`drop database if exists ${name} with (force)`);
    await client.query(`create database ${name}`);
  }
  await client.end();
}

function run(file: string, environment: Record<string, string> = {}): ChildProcess {
  return spawn(process.execPath, [join(build, file)], {
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
}

async function stop(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  child.kill('SIGTERM');
  await once(child, 'exit');
}

async function finished(child: ChildProcess): Promise<void> {
  const [code] = (await once(child, 'exit')) as [number | null];
  if (code !== 0) throw new Error(`A set-up step ended with ${code}.`);
}
