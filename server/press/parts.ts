import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Assets } from '../../core/template/composed';
import type { CompositionInput, PressTask } from './press';

/**
 * Parts that are the same for many tasks (a published version, its house styles, the schema, pictures) are handed to a process
 * once. Both sides keep them by the same rule, so that the one that sends knows what the other still has.
 */
const MOST_BYTES = 96 * 1_024 * 1_024;
/** What a part that is no picture counts as: they are far smaller than pictures. */
const PLAIN = 100_000;

const newCache = <Kept extends object>() =>
  new LRUCache<string, { value: Kept; size: number }>({ maxSize: MOST_BYTES, sizeCalculation: ({ size }) => size });

/** A task with names in the place of its parts, and those parts that its process does not have. */
export interface Packed {
  task: unknown;
  /** Every part's name in the order of its use, with its size, and itself where it is new. */
  parts: { name: string; size: number; value?: object }[];
}

/** A name in the place of a part. */
interface Name {
  part: string;
}

const names = new WeakMap<object, string>();
let count = 0;
/** Published versions and schemas are held by their caches, so that the same one is the same object. */
function nameOf(part: object): string {
  let name = names.get(part);
  if (!name) names.set(part, (name = `part ${++count}`));
  return name;
}

const kept = new WeakSet<object>();
/** Has a record handed to a process once however many documents are composed of it: whoever types in a draft has it set at each letter. */
export function keepRecord(snapshot: RecordSnapshot): void {
  kept.add(snapshot);
}

type InputTask = Extract<PressTask, { input: CompositionInput }>;
const hasInput = (task: PressTask): task is InputTask => 'input' in task;

/** What one process has, and packs tasks for it. */
export class Packer {
  readonly #has = newCache<object>();

  pack(task: PressTask): Packed {
    const parts: Packed['parts'] = [];
    const packed = (value: object, name = nameOf(value), size = PLAIN): Name => {
      const isNew = !this.#has.get(name);
      if (isNew) this.#has.set(name, { value: {}, size });
      parts.push({ name, size, ...(isNew && { value }) });
      return { part: name };
    };
    if (task.kind === 'check template')
      return { task: { ...task, pins: packed(task.pins), schema: packed(task.schema) }, parts };
    if (!hasInput(task)) return { task, parts };
    const { template, snapshot, context } = task.input;
    const { pins, schema, available = {} } = context;
    // Read anew for each task: it is their hash that tells that they are the same.
    const pictures = Object.entries(available).map(([hash, asset]) => [hash, packed(asset, hash, asset.bytes.length)]);
    const input = {
      template: packed(template),
      snapshot: kept.has(snapshot) ? packed(snapshot) : snapshot,
      context: {
        ...context,
        pins: packed(pins),
        schema: packed(schema),
        available: Object.fromEntries(pictures) as object,
      },
    };
    return { task: { ...task, input }, parts };
  }
}

/** What a process was handed, and unpacks tasks with it. */
export class Unpacker {
  readonly #has = newCache<object>();

  unpack({ task, parts }: Packed): PressTask {
    const known = new Map<string, object>();
    for (const { name, size, value } of parts) {
      const part = value ?? this.#has.get(name)!.value;
      if (value) this.#has.set(name, { value, size });
      known.set(name, part);
    }
    const whole = <Part>(name: unknown) => known.get((name as Name).part) as Part;
    const packed = task as PressTask;
    if (packed.kind === 'check template') return { ...packed, pins: whole(packed.pins), schema: whole(packed.schema) };
    if (!hasInput(packed)) return packed;
    const { template, snapshot, context } = packed.input;
    const pictures = Object.entries(context.available ?? {}).map(([hash, name]) => [hash, whole(name)]);
    return {
      ...packed,
      input: {
        template: whole(template),
        snapshot: 'part' in snapshot ? whole(snapshot) : snapshot,
        context: {
          ...context,
          pins: whole(context.pins),
          schema: whole(context.schema),
          available: Object.fromEntries(pictures) as Assets,
        },
      },
    };
  }
}

/** Names what a task is made of: tasks of equal inputs have the same name, since equal parts have theirs. */
export const nameOfInput = ({ task }: Packed): string =>
  createHash('sha256')
    .update(JSON.stringify((task as { input: unknown }).input))
    .digest('base64url');
