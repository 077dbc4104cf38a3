export type Severity = 'stops' | 'warns' | 'notes';

/** One result of the checks before filing. */
export interface Finding {
  /** Stable over proofs of the same document, so that a list can be updated in place. */
  id: string;
  severity: Severity;
  /** Whose fault it is: the record's, as most are, or the template's, whatever the record. */
  of?: 'template';
  title: string;
  /** What is wrong and what to do, for people. */
  sentence: string;
  /** The template's block. */
  block?: string;
  /** Keys of `Composition.values` where it shows on the page. */
  values: string[];
  /** The field of the record to set. */
  path?: string;
  /** Id of the workings that explain it. */
  workings?: string;
  /** Of what only has to be seen: the words that say so, and the reason that it is skipped with. */
  ready?: { label: string; reason: string };
}

const ORDER: Readonly<Record<Severity, number>> = { stops: 0, warns: 1, notes: 2 };

/** What stops first, otherwise as found; one finding for one cause, with all its places. */
export function gatherFindings(findings: readonly Finding[]): Finding[] {
  const byId = new Map<string, Finding>();
  for (const finding of findings) {
    const known = byId.get(finding.id);
    if (known) known.values.push(...finding.values);
    else byId.set(finding.id, { ...finding, values: [...finding.values] });
  }
  return [...byId.values()].sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Whether a document with these findings may be filed. */
export function mayFile(findings: readonly Finding[]): boolean {
  return findings.every((finding) => finding.severity !== 'stops');
}
