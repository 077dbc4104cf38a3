/** An id that no other part has. */
export const newId = (): string => `b-${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
