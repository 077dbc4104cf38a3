import { expect, test, type Page } from '@playwright/test';
import { SCREENS } from './screens';
import { dropDrafts } from './drafts';

/** What of a screen can be used at all, and is a stop of the Tab key: of a group with arrows inside, one. */
const STOPS = `
  [...document.querySelectorAll('a[href], button, input, textarea, select, [tabindex]')].filter((each) => {
    const { width, height } = each.getBoundingClientRect();
    return each.tabIndex >= 0 && !each.disabled && width > 0 && height > 0 && getComputedStyle(each).visibility !== 'hidden';
  })`;

/** Goes through a screen by the Tab key; gives what was reached, and what had no mark of being there. */
async function goThrough(page: Page): Promise<{ missed: string[]; unmarked: string[] }> {
  await page.evaluate(`window.stops = new Set(${STOPS}); window.reached = new Set(); document.activeElement?.blur()`);
  const count = (await page.evaluate('stops.size')) as number;
  const unmarked: string[] = [];
  for (let step = 0; step < count * 1.5 + 40; step++) {
    await page.keyboard.press('Tab');
    const mark = (await page.evaluate(`(() => {
      const here = document.activeElement;
      if (!here || here === document.body) return undefined;
      reached.add(here);
      // The mark may be around what the cursor is in.
      const marked = [here, here.parentElement, here.parentElement?.parentElement].some((each) => {
        if (!each) return false;
        const style = getComputedStyle(each);
        // A value on a page has its mark drawn over it.
        if (each.closest('[data-page]')) return each.matches(':focus-visible');
        return (style.outlineStyle !== 'none' && style.outlineWidth !== '0px') || style.boxShadow !== 'none' || (each === here && here.matches('input, textarea'));
      });
      return marked ? undefined : here.outerHTML.slice(0, 160);
    })()`)) as string | undefined;
    if (mark) unmarked.push(mark);
  }
  const missed = (await page.evaluate(
    `[...stops].filter((each) => each.isConnected && !reached.has(each)).map((each) => each.outerHTML.slice(0, 160))`,
  )) as string[];
  return { missed, unmarked };
}

for (const [path, shows] of SCREENS) {
  // The description of the programming interface is a library's, with its own keys.
  if (path === '/setup/programs') continue;
  test(`${path} is gone through by the Tab key, and shows where one is`, async ({ page }) => {
    test.setTimeout(90_000);
    await page.goto(path);
    await expect(shows(page)).toBeVisible();
    expect(await goThrough(page)).toEqual({ missed: [], unmarked: [] });
  });
}

test('a quote is filed, and its number read, without a pointer', async ({ page }) => {
  await page.goto('/records/Deal');
  await expect(page.getByRole('link', { name: 'Boiler house renewal' })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('herb benches slh');
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByRole('link', { name: 'Herb benches' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Glasshouse quote' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Preflight' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'File', exact: true })).toBeEnabled();
  // The leaf's tabs by arrows.
  await page.getByRole('tab', { name: 'Preflight' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Workings' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
});

test.afterEach(({ page }) => dropDrafts(page));

test('a figure is changed, taken back and done again by keyboard, in as many steps', async ({ page }) => {
  await page.goto('/templates/glasshouse-quote/figures');
  await expect(page.getByText('all in order')).toBeVisible();
  const label = page.getByRole('textbox', { name: 'Label', exact: true });
  await page.locator('[data-key="total"] .name').focus();
  await page.keyboard.press('Enter');
  await label.fill('Sum');
  await page.keyboard.press('Enter');
  await label.fill('Sum of all');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.locator('[data-key="total"] .name').focus();
  const name = page.locator('[data-key="total"] .label');
  await expect(name).toHaveText('Sum of all');
  await page.keyboard.press('Control+z');
  await expect(name).toHaveText('Sum');
  await page.keyboard.press('Control+z');
  await expect(name).toHaveText('Total');
  await page.keyboard.press('Control+Shift+z');
  await expect(name).toHaveText('Sum');
  await page.keyboard.press('Control+z');
  await expect(name).toHaveText('Total');
});

test('a figure sheet is left without a question: its changes are saved', async ({ page }) => {
  await page.goto('/templates/glasshouse-quote/figures');
  await expect(page.getByText('all in order')).toBeVisible();
  await page.locator('[data-key="total"] .name').click();
  await page.getByRole('textbox', { name: 'Label', exact: true }).fill('Sum');
  await page.keyboard.press('Enter');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Register' }).click();
  await expect(page).toHaveURL(/register/);
  await page.goBack();
  await expect(page.locator('[data-key="total"] .label')).toHaveText('Sum');
});

test('a formatted text is written in place, with its formats', async ({ page }) => {
  await page.goto('/records/Deal/D-1209');
  const note = page.getByRole('button', { name: /^Scope note:/ });
  await note.click();
  const text = page.getByRole('textbox', { name: 'Scope note' });
  await expect(text).toBeFocused();
  await page.keyboard.type('Beds of ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('oak');
  await page.keyboard.press('Control+Enter');
  await expect(note).toContainText('Beds of oak');
  await note.click();
  await expect(text.locator('strong')).toHaveText('oak');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Control+Enter');
  await expect(note).toContainText('blank');
});

test('an address that leads nowhere says so, and leads on', async ({ page }) => {
  await page.goto('/nowhere/at/all');
  await expect(page.getByRole('heading', { name: 'There is no page at this address' })).toBeVisible();
  await page.getByRole('button', { name: 'To the start' }).click();
  await expect(page.getByRole('link', { name: 'Boiler house renewal' })).toBeVisible();
  await page.goto('/records/Deal/D-9999');
  await page.getByRole('button', { name: 'All deals' }).click();
  await expect(page).toHaveURL(/\/records\/Deal$/);
  await page.goto('/register/00000000-0000-4000-8000-000000000000');
  await page.getByRole('button', { name: 'To the register' }).click();
  await expect(page).toHaveURL(/\/register$/);
});
