import { expect, test, type Page } from '@playwright/test';
import { TOTP } from 'otpauth';
import type { Role } from '../core/contract/permissions';
import { inDatabase, pageOf } from './callers';

const PASSWORD = 'glass rafter violet hinge 42';

/** Invites somebody as an administrator, and gives the link. */
async function invited(page: Page, name: string, email: string, roles: readonly Role[]): Promise<string> {
  await page.goto('/setup/people');
  await page.getByRole('button', { name: 'Invite a person' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('E-mail address').fill(email);
  await page.getByRole('dialog').getByLabel('producer').uncheck();
  for (const role of roles) await page.getByRole('dialog').getByLabel(role).check();
  await page.getByRole('button', { name: 'Create the link' }).click();
  const link = await page.getByLabel('Link', { exact: true }).textContent();
  return link!;
}

/** Takes a link as whoever got it, and chooses a password. */
async function join(page: Page, link: string): Promise<void> {
  await page.context().clearCookies();
  await page.goto(link);
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page).toHaveURL(/\/records\/Deal/);
}

async function signInAs(page: Page, email: string): Promise<void> {
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

test('from an invitation to the first document, which then says who filed it', async ({ page }) => {
  test.setTimeout(90_000);
  const link = await invited(page, 'Vera Stroud', 'vera@orrinvale.example', ['producer']);
  await page.context().clearCookies();
  await page.goto(link);
  await expect(page.getByText('Welcome, Vera Stroud')).toBeVisible();
  // What would soon be guessed is refused, and nothing is lost.
  await page.getByLabel('Password', { exact: true }).fill('verastroud2026');
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByRole('alert')).toContainText('This password is too easy to guess');
  await join(page, link);

  await page.goto('/records/Deal/D-1203/produce/glasshouse-quote');
  const file = page.getByRole('button', { name: 'File', exact: true });
  await expect(page.getByLabel('Page 1 of').first()).toBeVisible();
  await expect(file).toBeEnabled();
  await file.click();
  await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await expect(page.getByText(/was taken\.\s*Vera Stroud,/)).toBeVisible();

  // The link has worked once.
  await page.context().clearCookies();
  await page.goto('/sign-in');
  await page.goto(link);
  await expect(page.getByRole('alert')).toContainText('This link does not work any more');

  await pageOf(page, 'administrator');
  await page.goto('/setup/trail');
  await expect(page.getByRole('row', { name: /Vera Stroud Filed quote Q-/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Vera Stroud Joined, invited by Tamar Whitlow/ })).toBeVisible();
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export as CSV' }).click(),
  ]);
  const text = await (await csv.createReadStream()).toArray();
  expect(Buffer.concat(text as Buffer[]).toString('utf8')).toMatch(
    /^at,person,via,act,kind,id,name,sentence,details\r\n/,
  );
});

test('one-time codes are asked for, work once, and give way to a recovery code', async ({ page }) => {
  test.setTimeout(90_000);
  const link = await invited(page, 'Odo Fenn', 'odo@orrinvale.example', ['reader']);
  await join(page, link);
  await page.goto('/you');
  await page.locator('#codes-password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByAltText('A code for your app to read')).toBeVisible();
  const secret = (await page.locator('.beside code').textContent())!.replaceAll(' ', '');
  const app = new TOTP({ secret, digits: 6, period: 30 });
  await page.getByLabel('The code it shows now').fill('000000');
  await page.getByRole('button', { name: 'Turn codes on' }).click();
  await expect(page.getByRole('alert')).toContainText('This code is not right');
  const code = app.generate();
  await page.getByLabel('The code it shows now').fill(code);
  await page.getByRole('button', { name: 'Turn codes on' }).click();
  const codes = (await page.getByLabel('Recovery codes').textContent())!.split('\n');
  expect(codes).toHaveLength(10);

  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page).toHaveURL(/sign-in/);
  await signInAs(page, 'odo@orrinvale.example');
  // The code that turned them on is used up.
  await page.getByLabel('One-time code').fill(code);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('alert')).toContainText('Each code works once');
  await page.getByLabel('One-time code').fill(codes[0]!.toLowerCase());
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page).toHaveURL(/\/records\/Deal/);
  await page.goto('/you');
  await expect(page.getByText('9 recovery codes are left')).toBeVisible();
  // Kept sealed and hashed: neither stands in the database.
  const [person] = await inDatabase(
    "select code_secret, recovery_codes from people where email = 'odo@orrinvale.example'",
  );
  expect(JSON.stringify(person)).not.toContain(secret);
  expect(JSON.stringify(person)).not.toContain(codes[1]!.replaceAll('-', ''));
});

test('a session that ends in an open tab keeps what was typed, and goes on after signing in', async ({ page }) => {
  await pageOf(page, 'author', 'producer', 'finance', 'administrator');
  await page.goto('/records/Deal/D-1210');
  await page
    .getByRole('button', { name: /^Purchase-order number: .*Change it$|^Order number: .*Change it$/ })
    .first()
    .click();
  const field = page.locator('dd input').first();
  await field.fill('PO-4711');
  await inDatabase(
    'update sessions set ended_at = now() where id = (select id from sessions order by created_at desc limit 1)',
  );
  await field.press('Enter');
  const again = page.getByRole('dialog', { name: 'Sign in again' });
  await expect(again).toContainText('What you typed is still there');
  await again.getByRole('button', { name: 'Tamar Whitlow' }).click();
  await expect(page.getByText('Written to the CRM')).toBeVisible();
  await expect(page.getByText('PO-4711')).toBeVisible();
});

test('each role sees what it may not do, with the reason', async ({ page }) => {
  test.setTimeout(90_000);
  // Reader: looks, and changes nothing.
  await pageOf(page, 'reader');
  await page.goto('/records/Deal/D-1188');
  const produce = page.getByRole('button', { name: 'Produce Glasshouse quote' });
  await expect(produce).toHaveAttribute('aria-description', /takes the role author, producer or finance/);
  await produce.press('Enter');
  await expect(page.getByText('Your roles do not allow this')).toBeVisible();
  await expect(page).toHaveURL(/\/records\/Deal\/D-1188$/);
  await page.goto('/setup/people');
  await expect(page.getByText('takes the role administrator')).toBeVisible();
  await expect(page.getByText('Here that is Oona Brack, Tamar Whitlow.')).toBeVisible();
  await page.goto('/templates');
  await expect(page.getByRole('button', { name: 'New template' })).toHaveAttribute(
    'aria-description',
    /takes the role author/,
  );

  // Author: proofs and publishes, and files nothing.
  await pageOf(page, 'author');
  await page.goto('/records/Deal/D-1188/produce/glasshouse-quote');
  await expect(page.getByLabel('Page 1 of').first()).toBeVisible();
  await expect(page.getByText('To file a document takes the role producer or finance.')).toBeVisible();

  await page.goto('/records/Deal/D-1187/produce/glasshouse-quote');
  await page.getByRole('button', { name: 'Open the figure' }).click();
  await expect(page).toHaveURL(/\/templates\/glasshouse-quote\/figures\?record=D-1187&figure=subtotal$/);

  // Producer: quotes, but no invoices; figures are the author's.
  await pageOf(page, 'producer');
  await page.goto('/records/Deal/D-1187/produce/glasshouse-quote');
  await expect(page.getByRole('button', { name: 'See workings' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Open the figure' })).toBeHidden();
  await page.goto('/records/Deal/D-1188/produce/deposit-invoice');
  await expect(page.getByText('To file documents of the kind “invoice” takes the role finance.')).toBeVisible();
  await page.goto('/templates/glasshouse-quote/figures');
  await expect(page.getByText('To publish a template takes the role author.')).toBeVisible();

  // Finance: invoices, but no quotes.
  await pageOf(page, 'finance');
  await page.goto('/records/Deal/D-1188/produce/glasshouse-quote');
  await expect(page.getByText('To file documents of the kind “quote” takes the role producer.')).toBeVisible();

  // Administrator: people and the connection, and no proofs.
  await pageOf(page, 'administrator');
  await page.goto('/setup/connection');
  await page.getByRole('button', { name: 'Test now' }).click();
  await expect(page.getByText('The CRM answers.')).toBeVisible();
  await expect(page.getByLabel('Secret', { exact: true })).toHaveValue('');
  await page.goto('/records/Deal/D-1188/produce/glasshouse-quote');
  await expect(page.getByRole('alert')).toContainText('To look at proofs takes the role author, producer or finance');
});

test('roles that change end the session, and a kind that is hidden is nowhere', async ({ page, request }) => {
  const rules = (await (await request.get('/api/me')).json()) as { rules: { kinds: object; records: object } };
  await page.goto('/setup/rules');
  await page.getByRole('group', { name: 'agreement: seen by' }).getByRole('button', { name: 'finance' }).click();
  await page.getByRole('button', { name: 'Save the rules' }).click();
  await expect(page.getByText('Rules saved.')).toBeVisible();
  try {
    await pageOf(page, 'producer');
    await page.goto('/templates');
    await expect(page.getByText('Glasshouse quote', { exact: true })).toBeVisible();
    await expect(page.getByText('Service-plan agreement')).toHaveCount(0);
    const answer = await page.request.get('/api/templates/service-agreement');
    expect([403, 404]).toContain(answer.status());
  } finally {
    await request.put('/api/people/rules', { data: rules.rules });
  }
});
