/** The words of a condition without rules. */
export const ALWAYS = 'always';

/**
 * The notes in the margin of a proof, beside what stands under a condition or is repeated: the one place that words them.
 * `note` is what the template's author calls the condition or the item: "glass work is quoted", "contact".
 */
export const MARGIN_NOTES = {
  when: (note: string) => (note === ALWAYS ? note : `when ${note}`),
  unless: (note: string) => `unless ${note}`,
  forEach: (note: string) => `for each ${note}`,
  leftOut: (note: string) => `printed only when ${note}`,
} as const;
