import { sentence, type Value } from '../../formula/value';
import type { Finding } from './finding';

/** A picture that cannot be printed, for whatever its formula gave. */
export function missingPicture(value: Value, at: { block: string; key: string }): Finding {
  const reason = reasonOf(value);
  return {
    id: `picture ${reason}`,
    severity: 'warns',
    title: 'A picture is missing',
    sentence: `${reason} Nothing is printed in its place.`,
    block: at.block,
    values: [at.key],
    path: value.type === 'image' || value.type === 'blank' ? value.path : undefined,
  };
}

function reasonOf(value: Value): string {
  if (value.type === 'image') {
    const { refused, mediaType } = value.picture;
    if (mediaType === 'application/pdf') return 'The CRM holds a PDF here, which cannot stand as a picture.';
    return refused ?? 'The picture was not read from the CRM.';
  }
  if (value.type !== 'blank') return 'A picture is printed here, but the formula gives something else.';
  return `${sentence(value.place ? `${value.place}: ${value.cause}` : value.cause)}.`;
}
