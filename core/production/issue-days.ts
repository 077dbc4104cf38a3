/** How many days before today a series may allow documents to be issued on, at most. */
export const MOST_BACKDATED = 90;
