/** The address of the list of records of a type. */
export const listPath = (type: string): string => `/records/${encodeURIComponent(type)}`;

/** The address of a record. */
export const recordPath = (type: string, id: string): string => `${listPath(type)}/${encodeURIComponent(id)}`;

/** The address where a record is produced with a template. */
export const producePath = (type: string, id: string, template: string): string =>
  `${recordPath(type, id)}/produce/${encodeURIComponent(template)}`;
