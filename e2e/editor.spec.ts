import { expect, test, type Locator, type Page } from '@playwright/test';
import { inDatabase, SIGNED_IN } from './callers';
import { dropDrafts } from './drafts';
import { begin, countActions, filedText, insert, open, saved, sheet, takeFormula } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('from empty to a letter that is published and filed for three records', async ({ page }) => {
  test.setTimeout(120_000);
  const actions = countActions(page);
  await begin(page, 'Visit letter', 'An empty sheet', 'letter');
  await expect(sheet(page)).toBeFocused();
  for (const formula of ['deal.account.name', ADDRESS]) {
    await page.keyboard.type('=[');
    await page.getByRole('textbox', { name: 'Formula of the value' }).fill(formula);
    await expect(page.locator('.live strong')).toContainText(/\w/);
    await takeFormula(page);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.type('# Our visit');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Dear ');
  await page.getByRole('button', { name: /^Family name/ }).click();
  await page.keyboard.type(', we bring:');
  await page.keyboard.press('Enter');
  await page.keyboard.type('- a ladder');
  await page.keyboard.press('Enter');
  await page.keyboard.type('two people');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await insert(page, 'Table of words');
  for (const [at, word] of ['Day', 'Hour', 'Who', 'Monday', 'nine', 'both of us'].entries()) {
    if (at > 0) await page.keyboard.press('Tab');
    await page.keyboard.type(word);
  }
  await page.getByLabel('Pictures to put in').setInputFiles({ name: 'dot.png', mimeType: 'image/png', buffer: PIXEL });
  await expect(page.locator('.computed img')).toBeVisible();
  await page.getByLabel('In words, for those who cannot see it').fill('A dot');
  await page.keyboard.press('Enter');

  await page.getByRole('link', { name: 'Open the figure sheet' }).click();
  await page.getByRole('button', { name: 'Add a figure' }).last().click();
  await page.getByRole('textbox', { name: 'Name in formulas' }).fill('pieces');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Type' }).click();
  await page.getByRole('option', { name: 'Number', exact: true }).click();
  await page.getByRole('textbox', { name: /^Formula of/ }).fill('SUM(lines.quantity)');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.goBack();
  await expect(sheet(page)).toContainText('both of us');
  await page.getByText(', we bring:').click();
  await page.keyboard.press('End');
  await page.getByRole('button', { name: /^New figure/ }).click();
  await page.keyboard.type(' pieces');
  await saved(page);

  await page.getByRole('button', { name: 'Publish' }).click();
  await page.keyboard.type('The first letter');
  await page.keyboard.press('Enter');
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  await expect(stopped.or(page.getByText('Published as version 1'))).toBeVisible();
  if (await stopped.isVisible()) {
    await page.keyboard.type('Those have no contact');
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Published as version 1')).toBeAttached();
  actions.end();
  process.stdout.write(`      The letter took ${actions.count} actions\n`);
  expect(actions.count).toBeLessThanOrEqual(80);

  for (const [deal, account, city, pieces] of [
    ['D-1187', 'Marlow Fen Nurseries', 'Withy', 39],
    ['D-1203', 'Kestrel Hill Botanic Garden', undefined, undefined],
    ['D-1197', 'Alpengrün Gärtnerei', '9990 Oberwies', 179],
  ] as const) {
    await page.goto(`/records/Deal/${deal}/produce/visit-letter`);
    await page.getByRole('button', { name: 'File', exact: true }).click();
    await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
    const text = await filedText(page);
    expect(text).toContain('Our visit');
    expect(text).toMatch(/Monday\s+nine\s+both of us/);
    expect(text).toContain(account);
    if (city) expect(text).toContain(city);
    if (pieces) expect(text).toContain(`${pieces} pieces`);
  }
  await inDatabase("update templates set archived_at = now() where id = 'visit-letter'");
});

const ADDRESS =
  'ADDRESS(deal.account.street, deal.account.postcode, deal.account.city, deal.account.country, company.country)';

test('every template opens on its sheet, and is not changed by that', async ({ page }) => {
  test.setTimeout(90_000);
  const answer = await page.request.get('/api/templates');
  for (const { id, name } of (await answer.json()) as { id: string; name: string }[]) {
    const before = await (await page.request.get(`/api/templates/${id}/file`)).text();
    await open(page, id);
    await expect(page.getByRole('textbox', { name: `Sheet of ${name}` })).toBeVisible();
    await expect(page.getByText('No changes', { exact: true })).toBeVisible();
    expect(await (await page.request.get(`/api/templates/${id}/file`)).text()).toBe(before);
  }
});

test('a field is dragged onto the sheet, and everything is one history', async ({ page }) => {
  await open(page, 'glasshouse-quote');
  const heading = page.locator('.sheet-text h2:visible').first();
  const before = await heading.textContent();
  await heading.scrollIntoViewIfNeeded();
  const from = (await page
    .getByRole('button', { name: /^Number D-/ })
    .first()
    .boundingBox())!;
  const to = (await heading.boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 20, { steps: 4 });
  await page.mouse.move(to.x + 30, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(heading.locator('.value')).toHaveText(/^D-/);
  await saved(page);
  await page.getByRole('link', { name: 'Open the figure sheet' }).click();
  await expect(page.locator('[data-key="total"]')).toBeVisible();
  await page.goBack();
  await expect(heading.locator('.value')).toHaveText(/^D-/);
  await heading.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' now');
  await page.keyboard.press('Control+z');
  await expect(heading).not.toContainText('now');
  await page.keyboard.press('Control+y');
  await expect(heading).toContainText('now');
  expect(before).not.toContain('now');
});

test('what is pasted from elsewhere keeps its headings, lists, tables and links, and nothing that runs', async ({
  page,
}) => {
  await begin(page, 'Pasted', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  await paste(
    page,
    `<style>p { color: red }</style><script>window.hurt = 1</script>
     <h4 onclick="hurt()">Terms</h4><p style="color:red" class="x">Pay <b>now</b> at <a href="https://example.com/pay">our page</a>
     or <a href="javascript:hurt()">here</a>.<img src="x" onerror="window.hurt = 1"></p>
     <ul><li><p>One</p><ul><li>Inner</li></ul></li><li>Two</li></ul>
     <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">1.<span>&nbsp; </span></span>First</p>
     <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">2.</span>Second</p>
     <table><tr><th>A</th><th>B</th></tr><tr><td><p>1</p></td><td>2</td></tr><tr><td>3</td></tr></table>`,
  );
  const text = sheet(page);
  await expect(text.locator('h3')).toHaveText('Terms');
  await expect(text.locator('strong')).toHaveText('now');
  await expect(text.locator('a')).toHaveCount(1);
  await expect(text.locator('ul li')).toHaveText(['One', 'Inner', 'Two']);
  await expect(text.locator('ol li')).toHaveText(['First', 'Second']);
  await expect(text.locator('.cell')).toHaveText(['A', 'B', '1', '2', '3', '']);
  await expect(text.locator('img, script, style, [style*="red"], [onclick]')).toHaveCount(0);
  expect(await page.evaluate('window.hurt')).toBeUndefined();
  await saved(page);
});

test('five megabytes of foreign HTML are cut to what is taken at once', async ({ page }) => {
  await begin(page, 'Much', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  const line =
    '<p onmouseover="x()" style="mso-bidi:1">A line of text with <b>bold</b> words in it.</p><script>x()</script>';
  const took = await paste(page, line.repeat(Math.ceil(5_000_000 / line.length)));
  await expect(page.getByText('Only the first 2,000 blocks were pasted.')).toBeVisible();
  process.stdout.write(`      5 MB pasted and drawn in ${took} ms\n`);
  await expect(sheet(page).locator('p')).toHaveCount(2_000);
});

/** Pastes HTML as another program puts it into the clipboard. Gives the milliseconds until the page is drawn with it. */
async function paste(page: Page, html: string): Promise<number> {
  return page.evaluate(async (given) => {
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    const data = new DataTransfer();
    data.setData('text/html', given);
    const began = performance.now();
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
    // A frame is drawn once the next one begins.
    await frame();
    await frame();
    return Math.round(performance.now() - began);
  }, html);
}

test('words are found and replaced, in formulas too, in one step', async ({ page }) => {
  await open(page, 'order-confirmation');
  const text = sheet(page);
  await text.locator('h1').click();
  await page.keyboard.press('Control+f');
  await page.getByRole('textbox', { name: 'Find on the sheet' }).fill('your order');
  const count = page.getByRole('search').getByRole('status');
  await expect(count).toHaveText(/^\d+$/);
  await page.keyboard.press('Enter');
  await expect(count).toHaveText(/^1 of \d+$/);
  await page.getByRole('textbox', { name: 'Replace with' }).fill('your wish');
  await page.getByRole('button', { name: 'Replace all' }).click();
  await expect(count).toHaveText('nothing');
  await expect(text.locator('h1')).toContainText('your wish');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(text.locator('h1')).toContainText('your order');
});

test('a mistake is told in place, and the draft stays as it is written', async ({ page }) => {
  await begin(page, 'With mistakes', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.type('A =[');
  await page.getByRole('textbox', { name: 'Formula of the value' }).fill('NOSUCH(deal.nothing)');
  await takeFormula(page);
  const value = sheet(page).locator('.value');
  await expect(value).toHaveAttribute('data-fault', 'error');
  await value.click();
  await expect(
    page
      .getByLabel('Properties')
      .getByText(/NOSUCH/)
      .first(),
  ).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(value).toHaveAttribute('data-fault', 'error');
});

test('a connection that is lost loses nothing', async ({ page, context }) => {
  await open(page, 'delivery-note');
  await sheet(page).locator('h1, p').first().click();
  await context.setOffline(true);
  await page.keyboard.type('Written away ');
  await expect(page.getByText('Not saved: no connection. Kept in this browser.')).toBeVisible();
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await expect(sheet(page)).toContainText('Written away');
});

test('blocks are dragged on the sheet and in the outline, and columns by their edges', async ({ page }) => {
  await begin(page, 'Dragged', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  for (const words of ['One', 'Two', 'Three']) {
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
  }
  await insert(page, 'Table of words');
  await page.keyboard.type('Cell');
  await expect(page.getByRole('menu')).toHaveCount(0);
  const lines = () => sheet(page).locator('[data-region="body"] > p').allInnerTexts();
  await expect.poll(lines).toEqual(['One', 'Two', 'Three']);

  const three = (await sheet(page).getByText('Three').boundingBox())!;
  await page.mouse.move(three.x + 20, three.y + 5);
  const handle = page.getByRole('button', { name: 'Choose this block' });
  await drag(page, (await handle.boundingBox())!, (await sheet(page).getByText('One').boundingBox())!, -1);
  await expect.poll(lines).toEqual(['Three', 'One', 'Two']);
  await expect(page.locator('.block-line')).toHaveCount(0);

  await page.getByRole('tab', { name: 'Outline' }).click();
  const entry = (words: string) => page.getByRole('button', { name: new RegExp(`^${words}`) });
  await drag(page, (await entry('Three').boundingBox())!, (await entry('Two').boundingBox())!, 1);
  await expect.poll(lines).toEqual(['One', 'Two', 'Three']);
  await page.keyboard.press('Control+z');
  await expect.poll(lines).toEqual(['Three', 'One', 'Two']);

  await sheet(page).getByText('Cell').click();
  const cell = sheet(page).locator('.cell').first();
  const before = (await cell.boundingBox())!.width;
  const edge = page.getByRole('separator', { name: 'Edge of column 1' });
  const from = (await edge.boundingBox())!;
  await page.mouse.move(from.x + 4, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 54, from.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await cell.boundingBox())!.width - before).toBeGreaterThan(40);
  await edge.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await cell.boundingBox())!.width - before).toBeLessThan(48);
  await saved(page);
});

/** Drags from the middle of a box to another one: into its upper half (-1) or its lower one. */
async function drag(
  page: Page,
  from: { x: number; y: number; width: number; height: number },
  to: { x: number; y: number; width: number; height: number },
  half: -1 | 1,
): Promise<void> {
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2 + 8, from.y + from.height / 2 + 8, { steps: 4 });
  await page.mouse.move(to.x + 30, to.y + to.height * (half < 0 ? 0.2 : 0.8), { steps: 8 });
  await page.mouse.up();
}

test('a sample record is written, shown, opened as a trial, and kept with the template', async ({ page }) => {
  await open(page, 'letter');
  await page.getByRole('button', { name: 'Sample…' }).click();
  const fields = page.getByLabel('Fields of the sample record');
  await expect(fields).toHaveValue(/"name"/);
  const use = page.getByRole('button', { name: 'Show the values for it' });
  await fields.fill('nme,account.name\nA trial,Nobody & Sons');
  await expect(page.getByText('“nme” is no field of a deal. Is it “name”?')).toBeVisible();
  await expect(use).toBeDisabled();
  await fields.fill('name,account.name,contact.family_name\nA trial,Nobody & Sons,Nemo');
  await use.click();
  await expect(page.getByLabel('Record to show values for', { exact: true })).toHaveValue('Sample record');
  await expect(sheet(page).locator('h2')).toHaveText('A trial');
  await expect(sheet(page)).toContainText('Nobody & Sons');
  await saved(page);
  const answer = page.context().waitForEvent('response', (each) => each.url().endsWith('/draft/trial'));
  await page.getByRole('button', { name: 'Trial PDF' }).click();
  expect((await answer).status()).toBe(200);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(sheet(page).locator('h2')).toHaveText('A trial');
});

test('words get a link, a look and a place in the record that is shown', async ({ page }) => {
  await begin(page, 'Looks', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.type('See our terms');
  await page.keyboard.press('Shift+Home');
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByLabel('Address').fill('exa mple');
  await expect(page.getByText('This is no address.')).toBeVisible();
  await page.getByLabel('Address').fill('example.com/terms');
  await page.keyboard.press('Enter');
  await expect(sheet(page).locator('a')).toHaveAttribute('data-href', 'https://example.com/terms');
  await page.getByRole('button', { name: 'In the accent colour' }).click();
  await expect(sheet(page).locator('a span, span a')).toHaveText('See our terms');

  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.getByText('With its label, on an empty line').click();
  await page.getByRole('button', { name: /^Stage/ }).click();
  await expect(sheet(page).locator('p').last()).toHaveText(/^Stage: \w+/);
  const stage = page.locator('.brought-in').filter({ hasText: /^Stage/ });
  await stage.getByRole('button', { name: /^Used in one place/ }).click();
  await expect(page.getByRole('heading', { name: 'Value' })).toBeVisible();
  await page.getByLabel('May be blank').check();
  await page.getByRole('combobox', { name: 'Where it is blank' }).click();
  await page.getByRole('option', { name: 'a ruled space to write on' }).click();
  await saved(page);
  await page.getByText('With its label, on an empty line').click();
});

test('a field is brought in as what it is: a picture stands on the sheet, and prints', async ({ page }) => {
  await page.goto('/templates/letter?record=D-1194');
  await expect(sheet(page).locator('h2')).toHaveText('Orangery, walled garden');
  await sheet(page).locator('h2').click();
  await page.getByRole('button', { name: /^Site photo/ }).click();
  await expect(sheet(page).locator('.computed img')).toHaveAttribute('src', /^\/api\/files\/[0-9a-f]{64}$/);
  const src = await sheet(page).locator('.computed img').getAttribute('src');
  expect((await page.request.get(src!)).headers()['content-type']).toBe('image/png');
  await expect(page.getByLabel('Or from the record')).toHaveText('deal.site_photo');
  await saved(page);
});

test('of two windows on a sheet the second is told; it takes the other’s, and can go back to its own', async ({
  page,
  browser,
}) => {
  await open(page, 'delivery-note');
  const other = await (await browser.newContext({ storageState: SIGNED_IN, locale: 'en-GB' })).newPage();
  await open(other, 'delivery-note');
  await expect(other.getByText('Also open: you, in another window')).toBeVisible();
  const write = async (where: Page, words: string) => {
    await sheet(where).locator('h1:visible').first().click();
    await where.keyboard.press('End');
    await where.keyboard.type(words);
  };
  await write(page, ' first');
  await saved(page);
  await write(other, ' second');
  const conflict = other.getByRole('dialog', { name: 'You changed this draft in another window' });
  await conflict.getByRole('button', { name: 'Take theirs' }).click();
  await expect(sheet(other).locator('h1')).toContainText('first');
  await expect(sheet(other).locator('h1')).not.toContainText('second');
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet(other).locator('h1')).toContainText('second');
  await saved(other);
  await write(page, ' third');
  await expect(page.getByRole('dialog', { name: 'You changed this draft in another window' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep mine as a new template' }).click();
  await expect(page).toHaveURL(/\/templates\/delivery-note-2$/);
  await expect(sheet(page).locator('h1')).toContainText('first');
  await expect(sheet(page).locator('h1')).toContainText('third');
  await other.close();
});

test('a template is made, changed and published by keyboard alone', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/templates');
  await expect(page.getByRole('link', { name: 'Delivery note' })).toBeVisible();
  const { keyboard } = page;
  await tabTo(page, page.getByRole('button', { name: 'New template' }));
  await keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New template' });
  await expect(dialog.getByLabel('Name', { exact: true })).toBeFocused();
  await expect(page.locator('.p-dialog-enter-active')).toHaveCount(0);
  await keyboard.type('Typed letter');
  await keyboard.press('Tab');
  await keyboard.press('ArrowDown');
  await keyboard.press('ArrowDown');
  await tabTo(page, dialog.getByRole('combobox', { name: 'Kind of document' }));
  await keyboard.press('Enter');
  await expect(page.getByRole('option', { name: 'letter' })).toBeVisible();
  await keyboard.type('lett');
  await keyboard.press('Enter');
  await expect(dialog.getByRole('combobox', { name: 'Kind of document' })).toHaveText('letter');
  await tabTo(page, dialog.getByRole('button', { name: 'Begin' }));
  await keyboard.press('Enter');
  await expect(sheet(page)).toBeFocused();

  await keyboard.type('# Our visit');
  await keyboard.press('Enter');
  await keyboard.type('At =[');
  await expect(page.getByRole('textbox', { name: 'Formula of the value' })).toBeFocused();
  await keyboard.type('deal.account.name');
  await expect(page.locator('.live strong')).toContainText(/\w/);
  await takeFormula(page);
  await expect(sheet(page).locator('.value')).toContainText(/\w/);
  await keyboard.press('Enter');
  await command(page, 'Insert: table of words');
  await keyboard.type('Day');
  await keyboard.press('Tab');
  await keyboard.type('Hour');
  await expect(sheet(page).locator('.cell').nth(1)).toHaveText('Hour');
  await command(page, 'Insert: signature');
  await keyboard.press('Alt+ArrowUp');
  const kinds = () =>
    sheet(page)
      .locator('[data-region="body"] > *')
      .evaluateAll((all) => all.map((each) => each.getAttribute('data-kind') ?? each.tagName));
  await expect.poll(kinds).toEqual(['H1', 'P', 'signature', 'gridTable']);
  await tabTo(page, page.getByLabel('Words under the line'));
  await keyboard.press('Control+a');
  await keyboard.type('For us');
  await keyboard.press('Enter');
  await expect(sheet(page)).toContainText('For us');
  await saved(page);

  await keyboard.press('Control+Enter');
  await expect(page.getByRole('dialog', { name: /^Publish/ })).toBeVisible();
  await keyboard.type('By keyboard');
  await keyboard.press('Enter');
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  const published = page.getByText('Published as version 1');
  await expect(stopped.or(published)).toBeAttached();
  if (await stopped.isVisible()) {
    await keyboard.type('They have no account yet');
    await keyboard.press('Enter');
  }
  await expect(published).toBeAttached();
  await inDatabase("update templates set archived_at = now() where id = 'typed-letter'");
});

/** Presses Tab until something has the focus. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  for (let pressed = 0; pressed < 120; pressed++) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('The Tab key does not lead there.');
}

/** Finds a command of the screen by its words, and runs it. */
async function command(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(words);
  await expect(page.getByRole('option', { name: new RegExp(words) }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toBeFocused();
}
