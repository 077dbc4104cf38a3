/** Composes and sets a quote of very many lines once; prints the milliseconds it took and the memory in MiB. Run by the bench. */
import { Typesetter } from '../../render/typst/typesetter';
import { composed, quote } from './quotes';

const typesetter = new Typesetter(`${process.cwd()}/.build/press`);
const snapshot = quote(Number(process.argv[2] ?? 1_000), 'long');
const began = performance.now();
const { document, assets } = composed(snapshot);
typesetter.pdf(document, assets);
process.stdout.write(
  `${Math.round(performance.now() - began)} ${Math.round(process.memoryUsage().rss / 1024 / 1024)}\n`,
);
