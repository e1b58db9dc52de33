import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, paste, saveVersion, signIn } from './helpers.ts';

const cell = (page: Page, name: string) => page.getByRole('gridcell', { name, exact: true });

/** The texts of the rows, name first. */
async function rows(page: Page): Promise<string[][]> {
  const lines = page.getByRole('grid', { name: 'Data rows' }).getByRole('rowgroup').getByRole('row');
  const texts = await lines.evaluateAll((all) => all.map((line) => [...line.querySelectorAll('[data-cell]')].map((c) => (c.querySelector('.italic') === null ? (c.textContent ?? '').trim() : ''))));
  return texts.filter((line) => line.some((text) => text !== ''));
}

test('rows are typed, filled, gone on from, doubled, moved, found and replaced with the keys of a spreadsheet, and all of it undone', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases');
  await expect(page.getByRole('list', { name: 'Cases' }).getByRole('link').first()).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type('Rows by hand');
  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await paste(page, 'Enter <amount> on <day> => It says <answer>');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Declare them' }).click();
  await saveVersion(page, 2);

  await page.getByRole('gridcell', { name: 'name of the next row' }).focus();
  await paste(page, 'row 1\t0.10\t2026-02-27\tok\nrow 2\t0.25\t2026-02-28\n\t\t\n\t\t');
  await page.keyboard.press('Control+Home');
  await cell(page, 'name of row 1: row 1').click();
  // From the first name to the last day: three columns, four rows.
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight', 'ArrowRight']) await page.keyboard.press(`Shift+${key}`);
  await page.keyboard.press('Control+Shift+d');
  await expect.poll(() => rows(page)).toEqual([
    ['row 1', '0.10', '2026-02-27', 'ok'],
    ['row 2', '0.25', '2026-02-28', ''],
    ['row 3', '0.40', '2026-03-01', ''],
    ['row 4', '0.55', '2026-03-02', ''],
  ]);
  await cell(page, 'answer of row 1: ok').click();
  for (let i = 0; i < 3; i += 1) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await expect.poll(async () => (await rows(page)).map((r) => r[3])).toEqual(['ok', 'ok', 'ok', 'ok']);

  await cell(page, 'name of row 1: row 1').click();
  await page.getByRole('toolbar', { name: 'Selected rows' }).getByRole('button', { name: 'duplicate' }).click();
  await expect.poll(async () => (await rows(page)).map((r) => r[0])).toEqual(['row 1', 'row 1 2', 'row 2', 'row 3', 'row 4']);
  await cell(page, 'name of row 1 2: row 1 2').click();
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(async () => (await rows(page)).map((r) => r[0])).toEqual(['row 1', 'row 2', 'row 1 2', 'row 3', 'row 4']);
  await page.keyboard.press('Control+f');
  await page.getByRole('textbox', { name: 'Find' }).fill('ok');
  await page.getByRole('textbox', { name: 'Replace with' }).fill('taken');
  await expect(page.getByRole('status').filter({ hasText: '5 cells' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Replace in 5 cells' }).click();
  await expect.poll(async () => (await rows(page)).map((r) => r[3])).toEqual(['taken', 'taken', 'taken', 'taken', 'taken']);
  const before = await rows(page);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await rows(page)).map((r) => r[3])).toEqual(['ok', 'ok', 'ok', 'ok', 'ok']);
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(() => rows(page)).toEqual(before);
});

test('rows go out as a file and come in again unchanged; a file is looked at before it is taken in, and undone as one', async ({ page }) => {
  await signIn(page, 'Rui M.', '/cases/C-4');
  const data = page.getByRole('region', { name: 'Data' }).or(page.locator('section').filter({ has: page.getByRole('heading', { name: 'Data' }) })).first();
  await expect(data.getByRole('button', { name: 'CSV' })).toBeVisible();
  const before = await rows(page);
  const [download] = await Promise.all([page.waitForEvent('download'), data.getByRole('button', { name: 'XLSX' }).click()]);
  await page.getByLabel('File of rows').setInputFiles(await download.path().then(async (path) => ({ name: 'again.xlsx', mimeType: '', buffer: await import('node:fs/promises').then((fs) => fs.readFile(path)) })));
  await expect(page.getByText('Nothing would change.')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();

  const file = 'row;reading;remark\nlowest;1e5;typed by a clerk\nanother;007;\n';
  await page.getByLabel('File of rows').setInputFiles({ name: 'rows.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  const dialog = page.getByRole('dialog', { name: 'Rows of rows.csv' });
  await expect(dialog.getByRole('status')).toHaveText('1 row added, 1 row changed, 1 parameter made.');
  await expect(dialog).toContainText('line 2, reading: “1e5” is not a whole number. It is kept as it is written.');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Take in 2 rows' }).click();
  await expect(cell(page, 'reading of another: 007')).toBeVisible();
  await expect(cell(page, 'remark of lowest: typed by a clerk')).toBeVisible();
  await page.getByRole('heading', { name: 'Data' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(() => rows(page)).toEqual(before);
});
