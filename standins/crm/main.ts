/** The simulated CRM as a process: `CRM_DATABASE_URL`, `CRM_PORT`, `CRM_CLIENT_ID`, `CRM_CLIENT_SECRET`, `LUMBIX_URL`. */
import pg from 'pg';
import { demoRecords } from '../../demo/crm/index';
import { demoMedia } from '../../demo/crm/media';
import { renameField } from './model';
import { createCrm } from './server';
import { Store } from './store';

const { CRM_DATABASE_URL, CRM_PORT = '4701', CRM_CLIENT_ID = 'lumbix', CRM_CLIENT_SECRET = 'local-only' } = process.env;
const { LUMBIX_URL = 'http://127.0.0.1:4700' } = process.env;

const store = new Store(new pg.Pool({ connectionString: CRM_DATABASE_URL, max: 6 }));
store.pool.on('error', (problem) => process.stderr.write(`CRM stand-in: the database is away (${problem.message}).\n`));
await store.prepare();
if (await store.isEmpty()) {
  await store.loadMedia(demoMedia());
  await store.load({
    Accounts: demoRecords.accounts as never,
    Contacts: demoRecords.contacts as never,
    Products: demoRecords.products as never,
    Deals: demoRecords.deals as never,
    LineItems: demoRecords.lineItems as never,
  });
}
for (const renaming of await store.renamings()) renameField(renaming);
const server = createCrm({ store, clientId: CRM_CLIENT_ID, clientSecret: CRM_CLIENT_SECRET, lumbixUrl: LUMBIX_URL });
server.on('error', (problem: NodeJS.ErrnoException) => {
  const taken = problem.code === 'EADDRINUSE';
  process.stderr.write(taken ? `Port ${CRM_PORT} is taken; set LUMBIX_CRM_PORT to another.\n` : `${problem.message}\n`);
  process.exit(1);
});
server.listen(Number(CRM_PORT), '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    server.close();
    server.closeAllConnections();
    void store.pool.end().then(() => process.exit(0));
  });
}
