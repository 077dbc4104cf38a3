/** Longest name that every common file system takes, less the room a collision suffix needs. */
const LONGEST_STEM = 120;

/**
 * A file name that every common file system takes: no separators, control or reserved characters, no reserved device
 * names, no dots or spaces at the ends, bounded in length without cutting a character in two.
 */
export function safeFileName(name: string, extension: string): string {
  const stem = name
    .normalize('NFC')
    .replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '')
    .replace(/[<>:"/\\|?*]/g, '-')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '');
  const bounded = [...stem].slice(0, LONGEST_STEM).join('').trimEnd();
  const allowed = /^(con|prn|aux|nul|com\d|lpt\d)$/i.test(bounded) ? `${bounded}-` : bounded;
  return `${allowed || 'Document'}.${extension}`;
}

/** The first of `name.pdf`, `name (2).pdf`, … that is not taken; compared without regard to case. */
export function freeFileName(name: string, taken: readonly string[]): string {
  const used = new Set(taken.map((each) => each.toLowerCase()));
  if (!used.has(name.toLowerCase())) return name;
  const dot = name.lastIndexOf('.');
  for (let copy = 2; ; copy++) {
    const candidate = `${name.slice(0, dot)} (${copy})${name.slice(dot)}`;
    if (!used.has(candidate.toLowerCase())) return candidate;
  }
}
