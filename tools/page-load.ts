import type { Page } from '@playwright/test';

/** What a page loads until nothing more comes, as it travels. The answer of a proof, which holds its pages, is not counted. */
export interface Load {
  requests: number;
  bytes: number;
  /** Of the document itself. */
  html: number;
}

/** What a page may load at a first visit. */
export const BUDGET = { requests: 60, bytes: 700_000, html: 15_000 };

/** Counts what a page loads while something is done, and until it is quiet. */
export async function loadOf(page: Page, doing: () => Promise<unknown>): Promise<Load> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const load: Load = { requests: 0, bytes: 0, html: 0 };
  const proofs = new Set<string>();
  const documents = new Set<string>();
  session.on('Network.requestWillBeSent', ({ requestId, request, type }) => {
    if (/\/api\/productions(\?|$)/.test(request.url)) proofs.add(requestId);
    else load.requests++;
    if (type === 'Document') documents.add(requestId);
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (!proofs.has(requestId)) load.bytes += encodedDataLength;
    if (documents.has(requestId)) load.html += encodedDataLength;
  });
  await doing();
  await page.waitForLoadState('networkidle');
  await session.detach();
  return load;
}
