import { readFile } from 'node:fs/promises';
import { GUESS_ALL, readTable } from '@caderno/core/exchange';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

const paper = (page: Page) => page.getByRole('group', { name: /against/ });
const foot = (page: Page) => page.getByRole('status', { name: 'What is pointed at' });

const head = (page: Page, id: string) => page.getByRole('button', { name: new RegExp(`^${id} `) });

/** The colour in the middle of a square. */
async function colourAt(page: Page, column: string, row: string): Promise<string> {
  const [above, beside, sheet] = [await head(page, column).boundingBox(), await head(page, row).boundingBox(), await page.locator('canvas').boundingBox()];
  if (above === null || beside === null || sheet === null) throw new Error('The square is in view');
  const at = { x: above.x + above.width / 2 - sheet.x, y: beside.y + beside.height / 2 - sheet.y };
  return page.locator('canvas').evaluate((canvas, { x, y }) => {
    const to = (canvas as HTMLCanvasElement).getContext('2d');
    return [...(to?.getImageData(x * devicePixelRatio, y * devicePixelRatio, 1, 1).data ?? [])].slice(0, 3).join(',');
  }, at);
}

test('the matrix says what shows what: by keyboard, sorted and narrowed by a name, folded, turned, as a workbook', async ({ page }) => {
  await signIn(page, 'Olga S.', '/coverage');
  await page.getByRole('link', { name: 'Matrix' }).click();
  await expect(page.getByText(/^\d+ requirements × \d+ cases$/)).toBeVisible();

  await test.step('a square holds the colour of what it says, an empty one that of the paper', async () => {
    await expect.poll(() => colourAt(page, 'C-10', 'R-7')).toBe('45,106,82');
    expect(await colourAt(page, 'C-10', 'R-2')).toBe('255,253,248');
  });

  await test.step('the arrows lead to it, and the foot says it', async () => {
    await paper(page).focus();
    await page.keyboard.press('ArrowDown');
    await expect(foot(page)).toContainText('R-2 Meter is known');
    await page.keyboard.press('Control+ArrowRight');
    await expect(foot(page)).toContainText(/R-2 Meter is known × C-\d+ .*shown/);
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('ArrowUp');
    await expect(foot(page)).toContainText(/meets \d+ requirements? in view/);
    await expectAccessible(page);
  });

  await test.step('Enter opens, and back is where one was', async () => {
    const said = await foot(page).textContent();
    const id = /C-\d+/.exec(said ?? '')?.[0] ?? '';
    await page.keyboard.press('Enter');
    await expect(page.getByRole('textbox', { name: `Title of ${id}` }).or(page.getByRole('heading', { level: 1 }))).toBeVisible();
    await page.goBack();
    await expect(foot(page)).toContainText(id);
  });

  await test.step('what meets nothing is found at once', async () => {
    await page.getByRole('button', { name: /requirements? without any case/ }).click();
    await expect(page.getByRole('button', { name: 'All requirements again' })).toBeVisible();
    await expect(head(page, 'R-8')).toBeVisible();
    await expect(head(page, 'R-2')).toHaveCount(0);
    await page.getByRole('button', { name: 'All requirements again' }).click();
  });

  await test.step('a query narrows one side, and the workbook holds what is left', async () => {
    await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('id:R-7');
    await page.keyboard.press('Escape');
    const hide = page.getByLabel('Hide what is empty in view');
    await hide.click();
    await expect(hide).toBeChecked();
    await expect(page.getByText(/^1 of \d+ requirements × \d+ of \d+ cases$/)).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export XLSX' }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe('requirements by cases.xlsx');
    const { columns, records } = await readTable(new Uint8Array(await readFile(await file.path())), { ...GUESS_ALL, header: 1 });
    expect(columns).toEqual(expect.arrayContaining(['Id', 'Title', 'Shown', 'C-10', 'C-11']));
    // How many cases there are hangs on what other tests made.
    expect(records.at(-1)?.cells.join(' | ')).toMatch(/^R-7 .*shown/);
  });

  await test.step('turned, and against suites', async () => {
    await page.getByRole('button', { name: 'Turn' }).click();
    await expect(page.getByText(/^\d+ of \d+ cases × 1 of \d+ requirements$/)).toBeVisible();
    await page.getByRole('button', { name: /^Against:/ }).click();
    await page.getByRole('option', { name: 'suites' }).click();
    await expect(page.getByText(/suites? × 1 of \d+ requirements$/)).toBeVisible();
    await expectAccessible(page);
  });
});
