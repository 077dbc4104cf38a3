/** A part without what is not said of it: the text editor has `null` for that, and a choice that is off says nothing either. */
export function withoutUnsaid<Part extends object>(part: Part): Part {
  return Object.fromEntries(
    Object.entries(part).filter(([, each]) => each !== undefined && each !== null && each !== false),
  ) as Part;
}
