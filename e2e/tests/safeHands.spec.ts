import { expect, test, type Page } from '@playwright/test';
import { PROJECT, expectAccessible, paste, saveVersion, signIn } from './helpers.ts';

/** Where the focus is, as a person would call it. */
const focused = (page: Page): Promise<string> => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent?.trim() ?? document.activeElement?.tagName ?? '');
/** What a tab says of its chapter, once it is counted. */
const figureOf = async (page: Page, chapter: string): Promise<string> => {
  const tab = page.getByRole('navigation', { name: 'Chapters' }).getByRole('link', { name: new RegExp(`^${chapter}`) });
  await expect(tab).not.toContainText('…');
  return (await tab.textContent()) ?? '';
};
const steps = (page: Page) => page.getByRole('list', { name: 'Steps' }).getByRole('listitem');

/** A new case with steps, one a line. */
async function newCase(page: Page, title: string, lines: string): Promise<void> {
  await page.goto(`${PROJECT}/cases`);
  await expect(page.getByRole('heading', { name: /^Cases/ })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type(title);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Action of step 1' })).toBeFocused();
  if (lines !== '') await paste(page, lines);
}

test('letters typed in a dialog, on a button or where the focus was lost make nothing and undo nothing', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await newCase(page, 'Nothing astray', 'Open it\nClose it\n');
  await page.keyboard.press('Escape');
  await saveVersion(page, 2);
  const before = await figureOf(page, 'Cases');

  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('button', { name: 'Clone' }).focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: /^Clone/ })).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest('[role="dialog"]') !== null)).toBe(true);
  await page.keyboard.type('n');
  await page.keyboard.press('Shift+U');
  await page.keyboard.press('Control+s');
  await page.keyboard.press('Escape');
  if ((await dialog.count()) > 0) {
    // What was typed is not lost unasked.
    await expect(dialog.getByRole('alert')).toContainText('not saved yet');
    await dialog.getByRole('button', { name: 'Keep writing' }).click();
    await expect(dialog.getByRole('alert')).toHaveCount(0);
    await page.keyboard.press('Escape');
    await dialog.getByRole('button', { name: 'Discard it' }).click();
  }
  await expect(dialog).toHaveCount(0);
  await expect.poll(() => focused(page)).toBe('Clone');
  await page.keyboard.type('nn');
  await expect(page).toHaveURL(/\/cases\/C-\d+$/);
  expect(await figureOf(page, 'Cases')).toBe(before);

  // The link that has the focus goes with its part of the page: the focus is picked up, and a letter meanwhile means nothing.
  await page.getByRole('checkbox', { name: 'Select step 1' }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Clear selection' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('n');
  await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true);
  expect(await figureOf(page, 'Cases')).toBe(before);
  await expect(page.getByText('v2 · saved')).toBeVisible();
});

test('undo says what and where, asks for what is not in view, and leads there', async ({ page }) => {
  await signIn(page, 'Rui M.');
  await newCase(page, 'To be undone', 'Do it\n');
  await page.keyboard.press('Escape');
  await saveVersion(page, 2);
  const id = /C-\d+/.exec(page.url())?.[0] ?? '';
  await page.goto(`${PROJECT}/basis`);
  await expect(page.getByRole('heading', { name: 'Basis' })).toBeVisible();
  await page.keyboard.press('Shift+U');
  const dialog = page.getByRole('dialog', { name: 'Undo your last command?' });
  await expect(dialog).toContainText(`saved v2 of ${id} To be undone`);
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await page.goto(`${PROJECT}/cases/${id}`);
  await expect(page.getByText('v2 · saved')).toBeVisible();
  await page.keyboard.press('Shift+U');
  await expect(page.getByText(`Undone: saved v2 of ${id} To be undone`)).toBeVisible();
  await expect(page.getByText('v3 · saved')).toBeVisible();
  await page.goto(`${PROJECT}/journal`);
  await expect(page.getByRole('listitem').filter({ hasText: id }).first()).toContainText('undid “saved v2”');
});

test('steps by keyboard: Escape rests on a step, keys act on those selected, Tab leads out, and they go into another case with their parameters', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await newCase(page, 'Where they come from', 'First of <fresh name>\nSecond => seen\nThird\n');
  await expect(steps(page)).toHaveCount(4);
  await page.keyboard.press('Escape');
  await expect.poll(() => focused(page)).toBe('Action of step 3');
  await page.keyboard.press('Alt+ArrowUp');
  await expect(steps(page).nth(1)).toContainText('Third');
  await page.keyboard.press('Control+d');
  await expect(steps(page)).toHaveCount(5);
  await page.keyboard.press('Delete');
  await expect(steps(page)).toHaveCount(4);
  await page.keyboard.press('Control+a');
  await expect(page.getByRole('toolbar', { name: 'Selected steps' })).toContainText('3 steps selected');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('toolbar', { name: 'Selected steps' })).toHaveCount(0);

  await newCase(page, 'Where they go', '');
  await page.keyboard.press('Control+v');
  await expect(steps(page)).toHaveCount(4);
  await expect(steps(page).nth(0)).toContainText('First of <fresh name>');
  // The last step is no trap: Tab goes to what is expected, then on.
  for (let i = 0; i < 3; i += 1) await page.keyboard.press('Tab');
  await expect(steps(page)).toHaveCount(4);
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest('ol[aria-label="Steps"] [data-step]') === null)).toBe(true);
});

test('tables are pasted as steps: heads and numbers recognised, lines in cells kept together; unsure, one is asked', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await newCase(page, 'From a sheet', '#\tAction\tTest data\tExpected result\n1\t"Open the form\nof a reading"\tM-4182\tThe form is shown\n2\tSave\t\tIt is stored\n');
  await expect(steps(page)).toHaveCount(3);
  await expect(steps(page).nth(0)).toContainText('Open the form of a reading: M-4182');
  await expect(steps(page).nth(0)).toContainText('The form is shown');
  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await paste(page, 'Look\tat the dial\tIt turns\nStop\tthe pump\tIt stands\n');
  const dialog = page.getByRole('dialog', { name: 'Paste a table as steps' });
  await expect(dialog).toContainText('The first step: Look: at the dial ⇒ It turns');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Paste 2 steps' }).click();
  await expect(steps(page)).toHaveCount(5);

  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('gridcell', { name: 'name of the next row' })).toBeFocused();
  await paste(page, 'name\treading\tanswer\nusual\t4182\ttaken\ntoo low\t-1\trefused\n');
  await expect(page.getByRole('gridcell', { name: 'answer of too low: refused' })).toBeVisible();
  await page.getByRole('gridcell', { name: 'name of usual' }).click();
  await page.keyboard.press('End');
  await expect(page.getByRole('gridcell', { name: 'answer of usual' })).toBeFocused();
  await page.keyboard.press('Control+Home');
  await expect(page.getByRole('gridcell', { name: 'name of usual' })).toBeFocused();
  await page.keyboard.press('Control+ArrowDown');
  await expect(page.getByRole('gridcell', { name: 'name of too low' })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Tab');
  expect(await page.evaluate(() => document.activeElement?.closest('[role="grid"]') === null)).toBe(true);
});

test('words are marked by keyboard, from the Basis too; a bound takes a space and the reader’s way of writing', async ({ page }) => {
  await signIn(page, 'Inês V.', '/basis/R-2');
  await page.getByRole('group', { name: 'Text to mark words in' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('button', { name: 'Ask a question' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/conditions\/R-2\/K-\d+/);
  const title = page.getByRole('textbox', { name: /^Title of K-/ });
  await expect(title).toBeFocused();
  await expect(title).not.toHaveValue('New condition');
  await expect(page).toHaveTitle(/^K-\d+ .* · Conditions · .* – Caderno$/);

  await page.getByRole('button', { name: /^Model:/ }).click();
  await page.getByRole('option', { name: 'value ranges' }).click();
  const edit = page.getByRole('button', { name: 'Edit ranges' });
  if (await edit.isVisible()) await edit.click();
  await page.getByRole('button', { name: 'Add an interval' }).click();
  const bound = page.getByRole('textbox', { name: / to$/ }).first();
  await bound.fill('');
  await bound.pressSequentially('99 999');
  await expect(bound).toHaveValue('99 999');
  await page.keyboard.press('Tab');
  await expect(bound).toHaveValue('99999');
  await expect(page.getByText('read from “99 999”')).toBeVisible();
});

test('several requirements are changed at once, and found by the id of their source', async ({ page }) => {
  await signIn(page, 'Teresa L.', '/basis');
  await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('OR-9');
  await expect(page.getByRole('list', { name: 'Outline of requirements' }).getByRole('link', { name: /Channel/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('');
  const outline = page.getByRole('list', { name: 'Outline of requirements' });
  for (const title of ['Wrong reference', 'Part payment']) {
    await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill(title);
    await outline.getByRole('link', { name: new RegExp(title) }).focus();
    await page.keyboard.press('Space');
  }
  // What the filter hides is not acted on; without it both are selected.
  const bar = page.getByRole('toolbar', { name: 'Selected requirements' });
  await expect(bar).toContainText('1 selected');
  await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('');
  await expect(bar).toContainText('2 selected');
  await expectAccessible(page);
  await bar.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: /^What/ }).click();
  await page.getByRole('option', { name: 'Risk', exact: true }).click();
  await dialog.getByRole('button', { name: /^Risk/ }).click();
  await page.getByRole('option', { name: 'High risk' }).click();
  await dialog.getByRole('button', { name: 'Change 2 requirements' }).click();
  await expect(page.getByText('2 requirements set to high risk. The journal can undo it.')).toBeVisible();
  await page.goto(`${PROJECT}/journal`);
  await expect(page.getByRole('listitem').first()).toContainText('2 requirements set to high risk');
  await page.goto(`${PROJECT}/coverage`);
  await expect(page.getByRole('region', { name: 'Not yet shown' }).getByRole('listitem').filter({ hasText: 'Wrong reference' })).toContainText('not analysed yet');
});

test('on paper every row is there; from 320 px on nothing is cut off; day and night are chosen', async ({ page }) => {
  await signIn(page, 'Inês V.', '/coverage');
  await expect(page.getByRole('heading', { name: 'Design coverage' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
  const wall = page.getByRole('list', { name: 'Requirements and their coverage items' });
  const lines = await wall.getByRole('listitem').evaluateAll((all) => all.map((line) => line.getBoundingClientRect()).map(({ top, height }) => ({ top, height })));
  expect(lines.length).toBeGreaterThan(45);
  expect(lines.every((line, i) => line.height > 0 && (i === 0 || line.top >= (lines[i - 1]?.top ?? 0)))).toBe(true);
  const pages = ((await page.pdf({ format: 'A4' })).toString('latin1').match(/\/Type\s*\/Page\b/g) ?? []).length;
  expect(pages).toBeGreaterThanOrEqual(2);
  await page.evaluate(() => dispatchEvent(new Event('afterprint')));
  await page.emulateMedia({ media: 'screen' });
  await page.goto(`${PROJECT}/condition/K-44`);
  await expect(page.getByRole('grid', { name: 'Decision table' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
  await expect(page.getByRole('table', { name: 'Rules from 9' })).toBeVisible();
  await expect(page.getByRole('grid', { name: 'Decision table' })).toBeHidden();
  await page.evaluate(() => dispatchEvent(new Event('afterprint')));
  await page.emulateMedia({ media: 'screen' });

  // What can be pressed is not on paper, but the words of a button that are to be read are.
  for (const [path, words] of [['/read/C-4', 'M-2207'], ['/read/F-1/2', 'not a reading'], ['/phrasebook', 'the bill is made']] as const) {
    await page.goto(PROJECT + path);
    await expect(page.getByText(words, { exact: true }).first()).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByText(words, { exact: true }).first()).toBeVisible();
    await expect(page.getByRole('button', { name: /^(Print|Next instance|agree)$/ })).toHaveCount(0);
    await page.emulateMedia({ media: 'screen' });
  }

  for (const path of ['/coverage', '/basis/R-3', '/cases/C-1', '/conditions/R-3/K-4']) {
    await page.setViewportSize({ width: 320, height: 640 });
    await page.goto(PROJECT + path);
    await expect(page.getByRole('main')).toBeVisible();
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${PROJECT}/condition/K-44`);
  const condition = page.getByRole('region', { name: 'Condition', exact: true });
  await expect(page.getByRole('button', { name: 'Use the whole width' })).toBeVisible();
  const widthOf = async () => (await condition.boundingBox())?.width ?? 0;
  const narrow = await widthOf();
  await page.getByRole('button', { name: 'Use the whole width' }).click();
  await expect.poll(widthOf).toBeGreaterThan(1.4 * narrow);
  await page.getByRole('button', { name: 'Show both pages' }).click();
  await expect.poll(widthOf).toBeLessThan(1.1 * narrow);
  await page.getByRole('button', { name: /: account$/ }).click();
  await page.getByRole('menuitem', { name: 'Night' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
});
