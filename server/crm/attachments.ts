import { asJson, CrmError, requestCrm } from './client';

/** A file on a record, as the CRM tells of it. */
export interface CrmAttachment {
  id: string;
  name: string;
  size: number;
  sha256: string;
  created_at: string;
}

/** The files on a deal. Asked once: the steps of a filing try again by themselves. @throws CrmError */
export async function listAttachments(dealId: string): Promise<CrmAttachment[]> {
  const request = { path: attachmentsOf(dealId), repeatable: true, attempts: 1 };
  const { value } = await requestCrm(request, asJson<{ value: CrmAttachment[] }>);
  if (!Array.isArray(value)) throw new CrmError('away', 'The CRM’s answer cannot be read.');
  return value;
}

/**
 * Puts a file on a deal exactly once: every attempt carries the same repeatability id (OASIS OData Repeatable
 * Requests 1.0), so a CRM that has stored the file already answers as it did the first time. Sent once, as above.
 * @throws CrmError
 */
export async function attach(
  dealId: string,
  repeatabilityId: string,
  name: string,
  bytes: Uint8Array,
  firstSent: Date,
): Promise<CrmAttachment> {
  const request = {
    method: 'POST' as const,
    path: attachmentsOf(dealId),
    headers: {
      'Content-Type': 'application/pdf',
      Slug: encodeURIComponent(name),
      'Repeatability-Request-ID': repeatabilityId,
      'Repeatability-First-Sent': firstSent.toUTCString(),
    },
    body: new Uint8Array(bytes),
    repeatable: true,
    attempts: 1,
  };
  const attachment = await requestCrm(request, asJson<CrmAttachment>);
  if (typeof attachment.id !== 'string' || typeof attachment.sha256 !== 'string')
    throw new CrmError('away', 'The CRM’s answer cannot be read.');
  return attachment;
}

const attachmentsOf = (dealId: string) => `Deals('${encodeURIComponent(dealId.replaceAll("'", "''"))}')/attachments`;
