import { blankError, error, typeWords, type ListValue, type Value } from '../value';
import type { Argument, CallContext } from './function';

/**
 * For functions of a line's figure that compute something for all items of a list together and give each item its own: a
 * part of a sum, an amount rounded with the others, the line it belongs to. Computed once for the list, however many lines
 * ask.
 * @param name the function's, for its errors
 * @param key tells what is computed apart from anything else that is computed for the same list
 * @param absent what an item that is not in the list lacks: "no part"
 * @param compute a list with one value for each item, or an error
 */
export function ownOf(
  name: string,
  listArgument: Argument,
  context: CallContext,
  { key, absent }: { key: string; absent: string },
  compute: (items: ListValue['items'], inner: CallContext) => Value,
): Value {
  const list = listArgument.value();
  if (list.type === 'error') return list;
  if (list.type === 'blank') return blankError(list);
  if (list.type !== 'list') return error(`${name} takes a list of records, not ${typeWords(list)}.`);
  const { item } = context;
  if (!item) return error(`${name} is for a figure of a line: it gives the line its own.`);
  const at = list.items.findIndex((each) => each.type === 'record' && each.row === item);
  if (at === -1) return { type: 'blank', cause: absent, place: item.place };
  const computed = context.shared(list.items, `${name} ${key}`, (inner) => compute(list.items, inner));
  return computed.type === 'list' ? computed.items[at]! : computed;
}
