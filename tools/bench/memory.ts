/** Sets a thousand different quotes in one process and prints its memory in MiB before and after. Run by the bench. */
import { Typesetter } from '../../render/typst/typesetter';
import { composed, quote } from './quotes';

const DOCUMENTS = Number(process.argv[2] ?? 1_000);
const typesetter = new Typesetter(`${process.cwd()}/.build/press`);
const resident = () => Math.round(process.memoryUsage().rss / 1024 / 1024);

/** Between two documents a worker goes back to its queue; native memory is given back then. */
const breathe = () => new Promise((done) => setImmediate(done));

for (let warm = 0; warm < 20; warm++) {
  const { document, assets } = composed(quote(12, `warm ${warm}`));
  typesetter.pdf(document, assets);
  await breathe();
}
const before = resident();
for (let index = 0; index < DOCUMENTS; index++) {
  const { document, assets } = composed(quote(12 + (index % 20), `number ${index}`));
  typesetter.pdf(document, assets);
  await breathe();
}
process.stdout.write(`${before} ${resident()}\n`);
