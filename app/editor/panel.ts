/** A property of a part, as the panel at the right asks for it. `key`: the attribute, or the name in the object it is in. */
export type Field =
  | { is: 'text'; key: string; label: string; hint?: string; optional?: boolean }
  /** `ofItems`: each item of the part's list is in scope. */
  | { is: 'formula'; key: string; label: string; hint?: string; optional?: boolean; ofItems?: boolean }
  /** A formula that holds or does not. `ofItems`: as above. */
  | { is: 'condition'; key: string; label: string; optional?: boolean; ofItems?: boolean; onlyWith?: string }
  /** A list, and which of its items. */
  | { is: 'items'; key: string; label: string }
  /** What a line table does with its items as a whole: groups them, treats those that are optional, carries a sum over its pages. */
  | { is: 'table'; key: 'groups' | 'optional' | 'carry'; label: string }
  /** Where a clause is used, here and in other templates. */
  | { is: 'uses'; key: 'clause'; label: string }
  /** The words of the margin note: made from the formula, or the author's own. */
  | { is: 'note'; key: string; label: string }
  | { is: 'number'; key: string; label: string; unit?: string; least: number; most: number; optional?: boolean }
  | { is: 'yes'; key: string; label: string }
  /** `onlyWith`: another property of the part that has to be set. */
  | {
      is: 'choice';
      key: string;
      label: string;
      options: readonly Option[];
      onlyWith?: string;
      /** A part of the whole may be set by dragging, too. */
      ofParts?: boolean;
    }
  /** The look of what a formula gives, by examples. `of`: the attribute that holds the formula. */
  | { is: 'look'; key: string; label: string; of: string; ofItems?: boolean }
  /** A file of the template. */
  | { is: 'file'; key: string; label: string }
  /** Several of the same kind, in order, each under an id. */
  | { is: 'rows'; key: string; label: string; one: string; named: string; make: () => object; fields: readonly Field[] }
  /** Some that are there together or not at all. */
  | { is: 'group'; key: string; label: string; make: () => object; fields: readonly Field[] };

/** `value` null is what is not said. */
export interface Option {
  value: string | number | null;
  label: string;
}

/** A node as a layout has it, to put in. */
export interface NewPart {
  type: string;
  attrs?: Record<string, unknown>;
  content?: NewPart[];
  text?: string;
}

/** What people see of a kind besides its look on the sheet: its name, its properties, and how it is put in. */
export interface KindPanel {
  type: string;
  label: string;
  fields: readonly Field[];
  /**
   * Under which heading of the Insert menu it stands, and what is put in. Absent for what only comes with another kind, or is put in
   * with figures of its own.
   */
  insert?: {
    among: 'Text' | 'Record' | 'Page' | 'Around';
    words?: string;
    /** What it is called in the history, where that is not its label. */
    done?: string;
    keys?: string;
    make: (id: () => string) => NewPart;
  };
}
