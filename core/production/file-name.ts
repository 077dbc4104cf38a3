/** Longest name that every common file system takes, less the room a collision suffix needs. */
const LONGEST_STEM = 120;

/**
 * A file name that every common file system takes: no separators, control or reserved characters, no reserved device
 * names, no dots or spaces at the ends, bounded in length without cutting a character in two.
 */
export function safeFileName(name: string, extension: string): string {
  return `${safeName(name) || 'Document'}.${extension}`;
}

function safeName(name: string): string {
  const stem = name
    .normalize('NFC')
    .replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '')
    .replace(/[<>:"/\\|?*]/g, '-')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '');
  const bounded = [...stem].slice(0, LONGEST_STEM).join('').trimEnd();
  return /^(con|prn|aux|nul|com\d|lpt\d)$/i.test(bounded) ? `${bounded}-` : bounded;
}

/**
 * A path of folders and a file name, each of them safe as above, from its pieces: `/` stands between folders. Nothing of it leads out
 * of the folder that it is in.
 */
export function safePath(pieces: readonly string[], extension: string): string {
  const names = pieces.join('').split('/').map(safeName).filter(Boolean);
  const file = names.pop() ?? '';
  const ending = new RegExp(`\\.${extension}$`, 'i');
  return [...names, safeFileName(file.replace(ending, ''), extension)].join('/');
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
