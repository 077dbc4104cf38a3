import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { SCREENS } from './screens';

/** What axe finds that keeps somebody from a screen: each rule with the first place. `rules`: those that are asked for, else all. */
async function barriers(page: Page, rules?: string[]): Promise<string[]> {
  // Colours that are still changing are neither of the two.
  await page.evaluate(
    'Promise.allSettled(document.getAnimations().flatMap((each) => (each instanceof CSSTransition ? each.finished : [])))',
  );
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.length} × ${nodes[0]!.html.slice(0, 200)}`);
}

for (const [path, shows] of SCREENS) {
  test(`${path} can be used by everybody, in the light and in the dark, in windows from 640 to 1920 pixels`, async ({
    page,
  }) => {
    await page.goto(path);
    await expect(shows(page)).toBeVisible();
    expect(await barriers(page)).toEqual([]);
    // In the dark, other colours are all that is different.
    await page.emulateMedia({ colorScheme: 'dark' });
    expect(await barriers(page, ['color-contrast'])).toEqual([]);
    for (const width of [640, 1920]) {
      await page.setViewportSize({ width, height: 800 });
      await expect(shows(page)).toBeVisible();
      await expect(async () => {
        const beyond = await page.evaluate('document.scrollingElement.scrollWidth - innerWidth');
        expect(beyond, `at ${width}`).toBeLessThanOrEqual(0);
      }).toPass({ timeout: 5_000 });
    }
  });
}

/** Dialogs with the button that opens each, or the keys. */
const DIALOGS: readonly [name: string, path: string, opener: { button: string } | { keys: string }][] = [
  ['all keys', '/templates', { keys: '?' }],
  ['find anything', '/templates', { keys: 'Control+k' }],
  ['new template', '/templates', { button: 'New template' }],
  ['sample record', '/templates/glasshouse-quote', { button: 'Sample…' }],
  ['link', '/templates/glasshouse-quote', { button: 'Link' }],
  ['records to prove on', '/templates/glasshouse-quote/prove', { button: 'Choose others…' }],
  ['ready-made calculations', '/templates/glasshouse-quote/figures', { button: 'Ready-made…' }],
  ['formula help', '/templates/glasshouse-quote/figures', { button: 'Formula help' }],
  ['versions', '/templates/glasshouse-quote/figures', { button: 'Versions' }],
  ['invite a person', '/setup/people', { button: 'Invite a person' }],
];

for (const [name, path, opener] of DIALOGS) {
  test(`the dialog “${name}” can be used by everybody, and gives the focus back`, async ({ page }) => {
    await page.goto(path);
    await expect(SCREENS.find((each) => each[0] === path)![1](page)).toBeVisible();
    const before =
      'button' in opener
        ? page.getByRole('button', { name: opener.button, exact: true })
        : page.getByRole('link', { name: 'Register' });
    await before.focus();
    await page.keyboard.press('keys' in opener ? opener.keys : 'Enter');
    await expect(page.getByRole('dialog')).toBeVisible();
    await expect(page.locator('.p-dialog-enter-active')).toHaveCount(0);
    expect(await barriers(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(before).toBeFocused();
  });
}

test('the sheet with a condition, a table and its proof open can be used by everybody', async ({ page }) => {
  await page.setViewportSize({ width: 1600, height: 900 });
  await page.goto('/templates/glasshouse-quote?record=D-1187&proof=1');
  await expect(page.getByRole('figure', { name: 'Page 1 of 1' })).toBeVisible();
  await page.locator('.margin-notes').getByRole('button', { name: 'when site works include a crane' }).click();
  await expect(page.getByRole('region', { name: 'Where it holds' })).toBeVisible();
  expect(await barriers(page)).toEqual([]);
  await page.locator('.sheet-text table.lines td').nth(3).click();
  await expect(page.getByRole('group', { name: 'Columns of the table' })).toBeVisible();
  await page.getByRole('tab', { name: 'What if' }).click();
  expect(await barriers(page)).toEqual([]);
});

test('on a narrow screen the leaf lies below the desk, and the paper stays white in the dark', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.setViewportSize({ width: 640, height: 800 });
  await page.goto('/records/Deal/D-1188/produce/glasshouse-quote');
  const desk = page.getByRole('region', { name: 'Proof' });
  const sheet = page.locator('[data-page="1"]');
  await expect(sheet.getByRole('button').first()).toBeVisible();
  const [above, below] = [await desk.boundingBox(), await page.getByRole('tabpanel').boundingBox()];
  expect(below!.y).toBeGreaterThanOrEqual(above!.y + above!.height - 1);
  await expect(sheet).toHaveCSS('background-color', 'rgb(255, 255, 255)');
  await expect(page.locator('body')).not.toHaveCSS('background-color', 'rgb(233, 236, 230)');
  const fitted = (await sheet.boundingBox())!.width;
  expect(fitted).toBeGreaterThan(480);
  await page.getByRole('button', { name: 'Larger' }).click();
  expect((await sheet.boundingBox())!.width).toBeCloseTo(fitted * 1.2, 0);
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  expect((await sheet.boundingBox())!.width).toBeCloseTo(fitted, 0);
});
