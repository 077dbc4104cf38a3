/**
 * Hands requests to two web processes in turn, as a balancer does that knows nothing of them: what works behind it needs nothing that
 * one process alone remembers. `tsx e2e/balancer.ts PORT FIRST SECOND`
 */
import { createServer, request } from 'node:http';

const [port, ...ports] = process.argv.slice(2).map(Number);
let turn = 0;

createServer((incoming, answer) => {
  const { method, url, headers } = incoming;
  const to = { host: '127.0.0.1', port: ports[turn++ % ports.length], method, path: url, headers };
  const outgoing = request(to, (given) => {
    answer.writeHead(given.statusCode!, given.headers);
    given.pipe(answer);
    // One that was answered before it was read whole is read to its end, so that who sent it sees the answer.
    given.on('end', () => incoming.unpipe(outgoing).resume());
  });
  outgoing.on('error', () => (answer.headersSent ? incoming.resume() : answer.destroy()));
  incoming.pipe(outgoing);
  // Who goes away ends what was asked for them too: streams of events.
  answer.on('close', () => outgoing.destroy());
}).listen(port, '127.0.0.1');
