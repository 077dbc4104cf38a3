/** The language and notation in which findings, workings and the price bridge speak to people at their desks, whatever the document's. */
export const INTERFACE_LOCALE = 'en-GB';
