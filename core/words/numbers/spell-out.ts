/**
 * Numbers in words by rules, in the notation of Unicode's rule-based number formats (UTS 35 part 3, "Rule-Based Number
 * Formatting"), as far as whole numbers need it. A rule is `base: text;` or `base/radix: text;` and holds from its base
 * up to the next rule's; without a base it holds for the next number. In its text
 *
 * - `<<` is the number divided by the rule's divisor (the greatest power of its radix, 10, that its base holds), in words;
 *   `>>` the remainder; `<%set<`, `>%set>` and `=%set=` (the number itself) take another set of rules,
 * - `[…]` stands only where there is a remainder, `[…|…]` takes its second part where there is none,
 * - `$few{…}other{…}$` is chosen by the plural category of the quotient,
 * - `'` at the start keeps a space after it.
 */
export interface Rules {
  /** BCP 47 tag, for plural categories. */
  language: string;
  /** The text of rules by the name of their set. */
  sets: Readonly<Record<string, string>>;
}

interface Rule {
  base: number;
  divisor: number;
  text: string;
}

const read = new WeakMap<Rules, Map<string, Rule[]>>();

/** A whole number from zero up, below 10^15, in the words of a set of rules. */
export function spellOut(value: number, rules: Rules, set: string): string {
  const found = ruleFor(value, setOf(rules, set));
  const [quotient, remainder] = [Math.floor(value / found.divisor), value % found.divisor];
  const text = found.text.replace(/\[([^\]|]*)(?:\|([^\]]*))?\]/g, (_, with_: string, without = '') =>
    remainder > 0 ? with_ : without,
  );
  return text
    .replace(/([<>=])(?:%([a-z]+))?\1/g, (_, of: string, other: string | undefined) => {
      const number = of === '<' ? quotient : of === '>' ? remainder : value;
      return spellOut(number, rules, other ?? set);
    })
    .replace(/\$((?:[a-z]+\{[^}]*\})+)\$/g, (_, forms: string) => chosenForm(forms, quotient, rules.language));
}

function ruleFor(value: number, rules: readonly Rule[]): Rule {
  let found = rules[0]!;
  for (const rule of rules) {
    if (rule.base > value) break;
    found = rule;
  }
  return found;
}

function chosenForm(forms: string, quotient: number, language: string): string {
  const category = new Intl.PluralRules(language).select(quotient);
  const byCategory = new Map([...forms.matchAll(/([a-z]+)\{([^}]*)\}/g)].map(([, name, form]) => [name!, form!]));
  return byCategory.get(category) ?? byCategory.get('other')!;
}

function setOf(rules: Rules, name: string): Rule[] {
  let sets = read.get(rules);
  if (!sets)
    read.set(rules, (sets = new Map(Object.entries(rules.sets).map(([each, text]) => [each, readRules(text)]))));
  return sets.get(name)!;
}

function readRules(source: string): Rule[] {
  let next = 0;
  return source
    .split(';')
    .filter((each) => each.trim() !== '')
    .map((each) => {
      const [, base, radix, text] = /^\s*(?:(\d+)(?:\/(\d+))?:)?\s*([^]*?)$/.exec(each)!;
      const from = base === undefined ? next : Number(base);
      next = from + 1;
      const step = Number(radix ?? 10);
      let divisor = 1;
      while (divisor * step <= from) divisor *= step;
      return { base: from, divisor, text: text!.replace(/^'/, '') };
    });
}
