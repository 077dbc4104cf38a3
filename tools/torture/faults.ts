import type { Fault } from '../../standins/faults';
import { pause } from './caller';
import type { Lumbix } from './lumbix';
import type { Random } from './random';

/** Everything that goes wrong with the CRM for a moment, each by itself. */
const FAULTS: readonly Omit<Fault, 'times'>[] = [
  { on: 'attach', kind: 'cut-off' },
  { on: 'attach', kind: 'stall' },
  { on: 'attach', kind: 'page' },
  { on: 'attach', kind: 'drop-after' },
  { on: 'attach', kind: 'drop-before' },
  { on: 'attach', kind: 'slow', delay: 2_000 },
  { on: 'attach', kind: 'status', status: 401 },
  { on: 'attach', kind: 'status', status: 403, plain: true },
  { on: 'attach', kind: 'status', status: 408 },
  { on: 'attach', kind: 'status', status: 409 },
  { on: 'attach', kind: 'status', status: 423 },
  { on: 'attach', kind: 'status', status: 429 },
  { on: 'attach', kind: 'status', status: 500 },
  { on: 'attach', kind: 'status', status: 503, plain: true },
  { on: 'read', kind: 'cut-off' },
  { on: 'read', kind: 'stall' },
  { on: 'read', kind: 'page' },
  { on: 'read', kind: 'status', status: 503 },
  { on: 'token', kind: 'status', status: 503, plain: true },
  { on: 'token', kind: 'cut-off' },
  { on: 'patch', kind: 'drop-after' },
  { on: 'patch', kind: 'stall' },
  { on: 'patch', kind: 'status', status: 503 },
  { on: 'activity', kind: 'drop-after' },
  { on: 'activity', kind: 'cut-off' },
  { on: 'activity', kind: 'page' },
];

/** The same with the storage that copies are kept at. */
const STORAGE_FAULTS: readonly Omit<Fault, 'times'>[] = [
  { on: 'attach', kind: 'drop-before' },
  { on: 'attach', kind: 'drop-after' },
  { on: 'attach', kind: 'status', status: 503 },
  { on: 'attach', kind: 'status', status: 423 },
  { on: 'read', kind: 'drop-after' },
];

/** How Lumbix is hurt, and how long the CRM hangs, in milliseconds. */
export interface Hurt {
  faultEvery: number;
  killEvery: number;
  hang: number;
}

/** Hurts Lumbix until it is told to stop: first each fault by itself, then several at once, with kills between. */
export async function hurt(lumbix: Lumbix, random: Random, { faultEvery, killEvery, hang }: Hurt, over: () => boolean) {
  const told: Record<string, number> = {};
  const count = (what: string) => (told[what] = (told[what] ?? 0) + 1);
  const set = (url: string, fault: Omit<Fault, 'times'>, where = '') =>
    fetch(`${url}/faults`, { method: 'POST', body: JSON.stringify({ ...fault, times: random.upTo(3) }) }).then(
      () => count(`${where}${fault.on} ${fault.kind} ${fault.status ?? ''}`.trim()),
      () => undefined,
    );
  const faults = async () => {
    let turn = 0;
    while (!over()) {
      const several = turn >= FAULTS.length ? 3 : 1;
      for (let each = 0; each < several; each++) {
        const fault = several === 1 ? FAULTS[turn]! : random.of(FAULTS);
        await set(lumbix.crmUrl, fault);
      }
      await set(lumbix.storageUrl, random.of(STORAGE_FAULTS), 'storage ');
      turn++;
      await pause(faultEvery * (0.5 + random.share()));
    }
  };
  const kills = async () => {
    const parts = ['worker', 'web', 'crm', 'storage', 'database'] as const;
    let left: (typeof parts)[number][] = [];
    for (let turn = 0; !over(); turn++) {
      await pause(killEvery * (0.5 + random.share()));
      if (over()) return;
      // Each in turn at first, then in any order, and all before one comes again: `./start` gives up what falls too often.
      if (left.length === 0) left = [...parts];
      const part = turn < parts.length ? parts[turn]! : random.of(left);
      left.splice(left.indexOf(part), 1);
      if (lumbix.send(part, 'SIGKILL')) count(`killed ${part}`);
    }
  };
  const hangs = async () => {
    await pause(hang / 3);
    if (over() || !lumbix.send('crm', 'SIGSTOP')) return;
    count('the CRM hung');
    await pause(hang);
    lumbix.send('crm', 'SIGCONT');
  };
  await Promise.all([faults(), kills(), hangs()]);
  lumbix.send('crm', 'SIGCONT');
  await Promise.all([calm(lumbix.crmUrl), calm(lumbix.storageUrl)]);
  return told;
}

/** Takes all faults back that are still to come. */
async function calm(url: string): Promise<void> {
  for (;;) {
    const calmed = await fetch(`${url}/faults`, { method: 'DELETE' }).catch(() => undefined);
    if (calmed?.ok) return;
    await pause(500);
  }
}
