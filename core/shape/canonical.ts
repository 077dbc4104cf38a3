/** JSON that is the same text for the same content, whatever the order of its members: a database keeps objects without theirs. */
export const canonicalJson = (content: unknown): string =>
  JSON.stringify(content, (_key, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)))
      : value,
  );
