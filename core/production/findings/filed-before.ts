import { dayOf, formatDay } from '../../formula/date';
import type { RegisteredDocument } from '../../formula/functions/register';
import { isRevised } from '../../template/document-kinds';
import { INTERFACE_LOCALE } from '../../words/interface';
import type { Finding } from './finding';

/** Kinds of which there may be several by nature; their templates look at what was invoiced themselves. */
const SEVERAL: readonly string[] = ['letter', 'invoice', 'credit note'];

/**
 * A current document of the same kind that stays beside the new one. `called`: what the record is called; `asNew`: that a kind that is
 * revised takes another number all the same.
 */
export function filedBefore(
  kind: string,
  registered: readonly RegisteredDocument[],
  { called, asNew }: { called: string; asNew: boolean },
): Finding | undefined {
  const before = registered.findLast((each) => each.kind === kind);
  if (!before || SEVERAL.includes(kind) || (isRevised(kind) && !asNew)) return undefined;
  const day = formatDay(dayOf(before.issued)!, INTERFACE_LOCALE, 'short');
  return {
    id: 'filed before',
    severity: 'warns',
    title: `A ${kind} was filed before`,
    sentence: `${before.number} of ${day} is the current ${kind} of this ${called}. With this one both of them count. Have the earlier one void, or say why there are two.`,
    values: [],
  };
}
