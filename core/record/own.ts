/**
 * The entry of a record under a name of its own; undefined for any other name. Names come from formulas, files and the CRM,
 * and those that every object inherits (`constructor`, `toString`) must lead nowhere.
 */
export function own<Value>(entries: Readonly<Record<string, Value>>, name: string): Value | undefined {
  return Object.hasOwn(entries, name) ? entries[name] : undefined;
}
