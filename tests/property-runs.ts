/** How many cases a property is tried with: as many as it asks, or what `PROPERTY_RUNS` says. */
export const propertyRuns = (wanted: number): number => Number(process.env.PROPERTY_RUNS ?? wanted);
