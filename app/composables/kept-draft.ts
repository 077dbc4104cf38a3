import type { Template } from '#core/template/template';

/** A draft that the server does not have yet, with the revision that it was changed from. */
export interface KeptDraft {
  template: Template;
  revision: number;
}

const nameOf = (templateId: string) => `lumbix.draft.${templateId}`;

/** Keeps a draft in this browser until the server has it. A browser that has no room keeps nothing; the server is asked all the same. */
export function keepDraft(templateId: string, draft: KeptDraft): void {
  try {
    localStorage.setItem(nameOf(templateId), JSON.stringify(draft));
  } catch {
    // There is no room, or storing is forbidden.
  }
}

export function forgetDraft(templateId: string): void {
  try {
    localStorage.removeItem(nameOf(templateId));
  } catch {
    // Nothing could be kept either.
  }
}

/** What was kept of a draft; nothing where it cannot be read. */
export function keptDraft(templateId: string): KeptDraft | undefined {
  try {
    const kept = localStorage.getItem(nameOf(templateId));
    return kept === null ? undefined : (JSON.parse(kept) as KeptDraft);
  } catch {
    return undefined;
  }
}

/** Names this window for as long as it is open, whatever is loaded in it. */
export function windowId(): string {
  const NAME = 'lumbix.window';
  try {
    const known = sessionStorage.getItem(NAME) ?? crypto.randomUUID();
    sessionStorage.setItem(NAME, known);
    return known;
  } catch {
    return crypto.randomUUID();
  }
}
