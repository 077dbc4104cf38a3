/** The simulated storage as a process: `STORAGE_FOLDER`, `STORAGE_PORT`, `STORAGE_USER`, `STORAGE_SECRET`. */
import { createStorage, prepareStorage } from './server';

const { STORAGE_FOLDER, STORAGE_PORT = '4703', STORAGE_USER = 'lumbix', STORAGE_SECRET = 'local-only' } = process.env;
if (!STORAGE_FOLDER) throw new Error('STORAGE_FOLDER is not set; start Lumbix with ./start.');
await prepareStorage(STORAGE_FOLDER);
const server = createStorage({ folder: STORAGE_FOLDER, user: STORAGE_USER, secret: STORAGE_SECRET });
server.on('error', (problem: NodeJS.ErrnoException) => {
  const taken = problem.code === 'EADDRINUSE';
  process.stderr.write(
    taken ? `Port ${STORAGE_PORT} is taken; set LUMBIX_STORAGE_PORT to another.\n` : `${problem.message}\n`,
  );
  process.exit(1);
});
server.listen(Number(STORAGE_PORT), '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    server.close();
    server.closeAllConnections();
    process.exit(0);
  });
}
