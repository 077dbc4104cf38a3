import type { APIRequestContext } from '@playwright/test';

/** The CRM that the tested Lumbix is connected to, reached as another program or person would. */
export const crmUrl = `http://127.0.0.1:${Number(process.env.LUMBIX_TEST_PORT ?? 4710) + 5}`;

/** Changes a field on the CRM's own page. */
export async function changeInCrm(
  request: APIRequestContext,
  record: string,
  property: string,
  value: string,
): Promise<void> {
  const answer = await request.post(`${crmUrl}/${record}/change`, { form: { property, value }, maxRedirects: 0 });
  if (answer.status() !== 303) throw new Error(`The CRM refused the change: ${answer.status()}`);
}

/** Switches a fault of the CRM on. */
export async function fault(request: APIRequestContext, what: object): Promise<void> {
  await request.post(`${crmUrl}/faults`, { data: what });
}

/** Ends all faults. */
export async function clearFaults(request: APIRequestContext): Promise<void> {
  await request.delete(`${crmUrl}/faults`);
}

/** Gives a field another name, as whoever runs the CRM does. */
export async function renameInCrm(request: APIRequestContext, type: string, from: string, to: string): Promise<void> {
  const answer = await request.post(`${crmUrl}/fields`, { form: { type, from, to }, maxRedirects: 0 });
  if (answer.status() !== 303) throw new Error(`The CRM refused the new name: ${answer.status()}`);
}
