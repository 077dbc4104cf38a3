import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';

const folder = mkdtempSync(join(tmpdir(), 'lumbix-backup-'));
const port = Number(process.env.LUMBIX_TEST_CRM_PORT ?? 4713) + 6;
const file = join(folder, 'kept.dump');
const environment = { ...process.env, LUMBIX_DATA: join(folder, 'data'), LUMBIX_PG_PORT: String(port) };

/** Runs lines of the set-up's own language with its functions at hand. */
const shell = (lines: string): string =>
  execFileSync('bash', ['-euo', 'pipefail', '-c', `. tools/prepare.sh; find_postgres; ${lines}`], {
    encoding: 'utf8',
    env: environment,
  }).trim();
const withDatabase = (statement: string): string =>
  shell(
    `data=$(known_data); with_cluster "$data"; "$PG_BIN/psql" -qAt "$(database_url "$data" "$PG_PORT" lumbix)" -c "${statement}"; leave_cluster "$data"`,
  );
const run = (script: string, ...given: string[]) => {
  const { status, stdout, stderr } = spawnSync('bash', [`tools/${script}.sh`, ...given], {
    encoding: 'utf8',
    env: environment,
  });
  return { status, told: stdout + stderr };
};

beforeAll(() => {
  execFileSync('chmod', ['755', folder]);
  shell(`data=$(data_folder "$LUMBIX_DATA"); make_cluster "$data"; start_cluster "$data" ${port}
    make_database "$data" ${port} lumbix; make_database "$data" ${port} crm; stop_cluster "$data"`);
  withDatabase("create table kept (word text); insert into kept values ('before')");
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

it('a backup brings everything back as it was, and is read by its owner alone', () => {
  expect(run('backup', file)).toMatchObject({ status: 0 });
  expect(statSync(file).mode & 0o077).toBe(0);
  withDatabase("update kept set word = 'after'; create table added ()");
  expect(run('restore', file)).toMatchObject({ status: 0 });
  expect(withDatabase('select word from kept')).toBe('before');
  expect(withDatabase("select to_regclass('added') is null")).toBe('t');
  // Its role owns it still, and may go on.
  withDatabase("insert into kept values ('more')");
}, 60_000);

it('a backup that is none, or damaged, changes nothing', () => {
  const broken = join(folder, 'broken.dump');
  writeFileSync(broken, 'no backup');
  expect(run('restore', broken)).toMatchObject({
    status: 1,
    told: expect.stringContaining('Nothing was changed.') as string,
  });
  execFileSync('bash', ['-c', `head -c 600 ${file} > ${broken}`]);
  expect(run('restore', broken).status).toBe(1);
  expect(withDatabase('select count(*) from kept')).toBe('2');
  expect(run('restore').told).toContain('name the backup');
  expect(run('backup', file).told).toContain('is there already');
  expect(existsSync(`${file}.part`)).toBe(false);
}, 60_000);

it('each database is its own role’s, who reaches no other', () => {
  const asRole = (role: string, database: string) =>
    shell(`data=$(known_data); with_cluster "$data"
      "$PG_BIN/psql" -qAt "$(database_url "$data" "$PG_PORT" ${role} | sed 's#/${role}$#/${database}#')" -c "select rolsuper or rolcreatedb or rolcreaterole from pg_roles where rolname = current_user" 2>&1 || true
      leave_cluster "$data"`);
  expect(asRole('lumbix', 'lumbix')).toBe('f');
  expect(asRole('crm', 'crm')).toBe('f');
  expect(asRole('crm', 'lumbix')).toContain('permission denied for database');
  expect(asRole('lumbix', 'crm')).toContain('permission denied for database');
}, 60_000);

it.each([
  [{ LUMBIX_PORT: '80' }, 'LUMBIX_PORT is “80”. Set it to a number from 1024 to 65535.'],
  [{ LUMBIX_CRM_PORT: 'x' }, 'LUMBIX_CRM_PORT is “x”. Set it to a number from 1024 to 65535.'],
  [{ LUMBIX_PORT: '4999', LUMBIX_CRM_PORT: '4999' }, 'LUMBIX_CRM_PORT is 4999, which another port is set to already.'],
])('./start with %o says what to do', (wrong, sentence) => {
  const { status, stderr } = spawnSync('bash', ['start'], { encoding: 'utf8', env: { ...environment, ...wrong } });
  expect([status, stderr]).toEqual([1, expect.stringContaining(sentence)]);
});

it('a folder of another user is refused in words', () => {
  const theirs = join(folder, 'theirs');
  mkdirSync(theirs);
  execFileSync('chown', ['nobody', theirs]);
  const { stderr } = spawnSync('bash', ['tools/backup.sh'], {
    encoding: 'utf8',
    env: { ...environment, LUMBIX_DATA: theirs },
  });
  expect(stderr).toContain('belongs to another user. Start Lumbix as that user, or choose a folder of your own');
});
