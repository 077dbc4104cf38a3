/** What people may do. It knows no shapes, so that pages can ask it without loading them. */
import { own } from '../record/own';

/** What a person is here; a person may have several. */
export const ROLES = ['author', 'producer', 'finance', 'reader', 'administrator'] as const;
export type Role = (typeof ROLES)[number];

/** What a role is for, in a sentence for those who give it. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  author: 'Writes templates, house styles and clauses, and publishes them.',
  producer: 'Looks at proofs, skips warnings with a reason, and files documents.',
  finance: 'Files invoices and credit notes, voids documents that wait, and looks after number series.',
  reader: 'Looks at deals, templates and the register, and changes nothing.',
  administrator: 'Invites people, gives roles, and keeps the connection to the CRM.',
};

/** What an endpoint asks of whoever calls it: the roles of which one is enough, and the act in words after “to”. */
export const PERMISSIONS = {
  look: { roles: ROLES, to: 'look at deals, templates and documents' },
  prove: { roles: ['author', 'producer', 'finance'], to: 'look at proofs' },
  bring: { roles: ['author', 'producer', 'finance'], to: 'put in a picture or a PDF' },
  change: { roles: ['producer', 'finance'], to: 'change a record of the CRM' },
  file: { roles: ['producer', 'finance'], to: 'file a document' },
  void: { roles: ['finance'], to: 'void a document' },
  number: { roles: ['finance', 'administrator'], to: 'look after number series' },
  publish: { roles: ['author'], to: 'publish a template' },
  administer: { roles: ['administrator'], to: 'look after people and the connection' },
} as const satisfies Readonly<Record<string, { roles: readonly Role[]; to: string }>>;
export type Permission = keyof typeof PERMISSIONS;

/** Why these roles are not enough for a permission, in a sentence that says whom to ask; undefined where they are. */
export function whyNot(permission: Permission, roles: readonly Role[]): string | undefined {
  const { roles: wanted, to } = PERMISSIONS[permission];
  return whyNotRoles(wanted, to, roles);
}

/** The same for any list of roles of which one is enough. `to`: the act, in words after “to”. */
export function whyNotRoles(wanted: readonly Role[], to: string, roles: readonly Role[]): string | undefined {
  if (wanted.some((role) => roles.includes(role))) return undefined;
  return `To ${to} takes the role ${oneOfThem(wanted)}. Ask an administrator for it.`;
}

/** "author", "author or producer", "author, producer or finance" */
function oneOfThem(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? 'of nobody') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;
}

/** The rules for a type of records: its own, or else all of them, since what belongs to a record (its lines, its account) goes with it. */
export function rulesFor<Rule>(records: Readonly<Record<string, Rule>>, type: string): readonly Rule[] {
  const rule = own(records, type);
  return rule ? [rule] : Object.values(records);
}
