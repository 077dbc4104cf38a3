import type { Page } from '@playwright/test';

/** Every screen, with what is there once it is loaded. */
export const SCREENS: readonly [path: string, shows: (page: Page) => ReturnType<Page['getByText']>][] = [
  ['/records/Deal', (page) => page.getByRole('link', { name: 'Boiler house renewal' })],
  ['/records/Deal/D-1188', (page) => page.getByRole('button', { name: 'Produce Glasshouse quote' })],
  ['/records/Deal/D-1188/produce/glasshouse-quote', (page) => page.getByText('No issues found')],
  ['/templates', (page) => page.getByRole('link', { name: 'Delivery note' })],
  ['/templates/glasshouse-quote', (page) => page.getByRole('textbox', { name: 'Sheet of Glasshouse quote' })],
  ['/templates/glasshouse-quote/plans', (page) => page.getByRole('heading', { name: 'After filing' })],
  ['/templates/glasshouse-quote/prove', (page) => page.getByText(/can be filed/)],
  [
    '/templates/glasshouse-quote/versions',
    (page) => page.getByText('Nothing differs.').or(page.getByRole('complementary').locator('h2')).first(),
  ],
  [
    '/templates/glasshouse-quote/replay',
    (page) => page.getByText(/^All \d+ would have|^Nothing was filed|of \d+ would/),
  ],
  ['/templates/glasshouse-quote/figures', (page) => page.getByText('all in order')],
  ['/register', (page) => page.getByRole('searchbox', { name: 'Search the register' })],
  ['/setup/people', (page) => page.getByText('tamar@orrinvale.example').first()],
  ['/setup/rules', (page) => page.getByRole('heading').nth(1)],
  ['/setup/connection', (page) => page.getByRole('heading').nth(1)],
  ['/setup/records', (page) => page.getByRole('heading').nth(1)],
  ['/setup/copies', (page) => page.getByText('Long-term store')],
  ['/setup/numbers', (page) => page.getByText('Order confirmations')],
  ['/setup/trail', (page) => page.getByRole('table')],
  ['/setup/programs', (page) => page.getByRole('heading').nth(1)],
  ['/you', (page) => page.getByText('Where you are signed in')],
];
