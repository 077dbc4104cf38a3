import { requestCrm } from './client';

/** A file on a record, as the CRM tells of it. */
export interface CrmAttachment {
  id: string;
  name: string;
  size: number;
  sha256: string;
  created_at: string;
}

/** The files on a deal. @throws CrmError */
export async function listAttachments(dealId: string): Promise<CrmAttachment[]> {
  const response = await requestCrm({ path: attachmentsOf(dealId), repeatable: true });
  return ((await response.json()) as { value: CrmAttachment[] }).value;
}

/**
 * Puts a file on a deal exactly once: every attempt carries the same repeatability id (OASIS OData Repeatable
 * Requests 1.0), so a CRM that has stored the file already answers as it did the first time.
 * @throws CrmError
 */
export async function attach(
  dealId: string,
  repeatabilityId: string,
  name: string,
  bytes: Uint8Array,
  firstSent: Date,
): Promise<CrmAttachment> {
  const response = await requestCrm({
    method: 'POST',
    path: attachmentsOf(dealId),
    headers: {
      'Content-Type': 'application/pdf',
      Slug: encodeURIComponent(name),
      'Repeatability-Request-ID': repeatabilityId,
      'Repeatability-First-Sent': firstSent.toUTCString(),
    },
    body: new Uint8Array(bytes),
    repeatable: true,
  });
  return (await response.json()) as CrmAttachment;
}

const attachmentsOf = (dealId: string) => `Deals('${encodeURIComponent(dealId.replaceAll("'", "''"))}')/attachments`;
