import { readFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, saveVersion, signIn } from './helpers.ts';

const HERE = '/segunda-fonte';
/** As people keep them: carriage returns, tabs, tables out of line, a comment at the end, one that is no good. */
const FILES: Readonly<Record<string, string>> = {
  'counter/coins.feature': '\uFEFF# Kept by the counter\r\nFeature: Coins\r\n\r\n\t@smoke\r\n\tScenario: A full purse\r\n\t\tGiven the member has 5 coins\r\n\t\tWhen the member pays\r\n\t\tThen the ledger is unchanged\r\n\r\n  Scenario: An empty purse\r\n    Given the member has 0 coins\r\n    Then the ledger remains unchanged\r\n# the end',
  'counter/cards.feature': 'Feature: Cards\n  Scenario Outline: A card\n    Given the member has <n> coins\n    Then the ledger is unchanged\n\n    Examples:\n      |n|\n   | 1 |\n      | 20|\n',
  'half.feature': 'Feature: Half\n  Scenario: x\n    Given the member has 3 coins\n    nothing of the sort\n',
};

function folderOf(root: string): string {
  for (const [path, text] of Object.entries(FILES)) {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text);
  }
  writeFileSync(join(root, 'README.txt'), 'no feature');
  return root;
}

const editor = (page: Page) => page.getByLabel('Text of the feature');

test('a folder of features comes in, gets one wording, and goes out with only that changed', async ({ page }, info) => {
  await signIn(page, 'Teresa L.', '/basis');
  await page.goto('/new-project');
  await expect(page.getByLabel('Name')).toBeFocused();
  await page.keyboard.type('Segunda fonte');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/segunda-fonte\/basis$/);

  await test.step('in an empty project the chapter says what it is for, and the folder comes in whole', async () => {
    await page.goto(`${HERE}/scenarios`);
    await expect(page.getByText('Scenarios in Gherkin')).toBeVisible();
    await page.getByRole('button', { name: 'Features from and to files' }).click();
    await page.getByRole('menuitem', { name: 'Import features' }).click();
    await page.getByLabel('Folder of features to import').setInputFiles(folderOf(info.outputPath('suite')));
    await expect(page.getByText('3 added with 4 scenarios')).toBeVisible();
    await expect(page.getByText('half.feature:4:5')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText(/Imported suite\/: 3 added, 0 changed/)).toBeVisible();
    await expect(page).toHaveURL(/\/scenarios\/F-1/);
  });

  await test.step('tags find scenarios, and one leads to its line', async () => {
    await page.getByLabel('Tags').fill('@smoke');
    await expect(page.getByRole('listitem').filter({ hasText: 'Cards' })).toHaveCount(0);
    await page.getByRole('link', { name: 'A full purse' }).click();
    await expect(editor(page)).toContainText('Scenario: A full purse');
    await page.getByLabel('Tags').fill('');
    await expectAccessible(page);
  });

  await test.step('phrases nearly alike get one wording in one entry', async () => {
    await page.getByRole('link', { name: 'Phrasebook' }).click();
    await expect(page.getByText('4 phrases in 8 steps')).toBeVisible();
    await page.getByRole('button', { name: 'Word all as the ledger is unchanged' }).click();
    await expect(page.getByRole('dialog')).toContainText('the ledger remains unchanged');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Reword 1 step' }).click();
    await expect(page.getByText('1 feature changed: one wording now.')).toBeVisible();
    await expect(page.getByText('3 phrases in 8 steps')).toBeVisible();
    await page.getByRole('button', { name: 'agree', exact: true }).first().click();
    await expect(page.getByRole('button', { name: 'agreed' })).toBeVisible();
  });

  await test.step('a phrase is said in full by new shared steps, which are read below it with its values', async () => {
    await page.getByRole('button', { name: 'Say in full what the member has {int} coins means' }).press('Enter');
    await expect(page.getByRole('button', { name: 'Write new shared steps' })).toBeFocused();
    await expectAccessible(page);
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/shared\/S-1$/);
    await expect(page.getByRole('heading', { name: 'Says in full' })).toBeVisible();
    await page.getByRole('button', { name: /Write the next step/ }).click();
    await page.keyboard.insertText('Lay <value> coins on the table');
    await page.keyboard.press('Escape');
    await saveVersion(page, 2);
    await page.goto(`${HERE}/scenarios/F-1`);
    await page.getByRole('button', { name: 'Pages', exact: true }).click();
    await expect(page.getByRole('link', { name: 'in full: S-1' }).first()).toBeVisible();
    await page.getByRole('article').getByRole('link', { name: 'Read through' }).last().click();
    await expect(page.getByRole('list', { name: 'Steps to be done' })).toContainText(/Lay \d+ coins on the table/);
    await expectAccessible(page);
  });

  await test.step('while one writes, phrases are offered, values are gone through, and a scenario moves by its keys', async () => {
    await page.goto(`${HERE}/scenarios`);
    await page.getByRole('link', { name: /Half/ }).click();
    await editor(page).getByText('nothing of the sort').click();
    await page.keyboard.press('Home');
    await page.keyboard.press('Shift+End');
    await page.keyboard.type('And the mem');
    await expect(page.getByRole('option', { name: /the member has \{int\} coins/ })).toContainText('agreed');
    // A list that has only just opened takes no key, so that nobody chooses what they have not seen.
    await page.waitForTimeout(200);
    await page.keyboard.press('Enter');
    await page.keyboard.type('7');
    await expect(editor(page)).toContainText('And the member has 7 coins');
    await page.keyboard.press('Control+End');
    await page.keyboard.type('\n  Scenario: y\nThen it ends\n');
    await expect(editor(page)).toContainText('Scenario: y');
    await editor(page).getByText('Then it ends').click();
    await page.keyboard.press('Alt+ArrowUp');
    await expect.poll(async () => (await editor(page).innerText()).replaceAll(/\s+/g, ' ')).toMatch(/Scenario: y .*Scenario: x/);
    await page.keyboard.press('Alt+ArrowDown');
    await expect.poll(async () => (await editor(page).innerText()).replaceAll(/\s+/g, ' ')).toMatch(/Scenario: x .*Scenario: y/);
    await saveVersion(page, 2);
    await expect(page.getByRole('list', { name: /^Scenarios of F-/ }).getByRole('listitem')).toHaveCount(2);
  });

  await test.step('what nobody changed goes out byte for byte', async () => {
    await page.goto(`${HERE}/scenarios`);
    const saved = async (query: string, name: string): Promise<Buffer> => {
      await page.getByRole('combobox', { name: 'Filter the features by a query' }).fill(query);
      await page.getByRole('button', { name: 'Features from and to files' }).click();
      const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: /as its file/ }).click()]);
      expect(download.suggestedFilename()).toBe(name);
      const path = info.outputPath(name);
      await download.saveAs(path);
      return readFileSync(path);
    };
    expect(await saved('cards', 'cards.feature')).toEqual(Buffer.from(FILES['counter/cards.feature'] ?? ''));
    expect((await saved('purse', 'coins.feature')).toString()).toBe((FILES['counter/coins.feature'] ?? '').replace('remains unchanged', 'is unchanged'));
  });

  await test.step('brought once more, what was changed here stays, and there is nothing to do', async () => {
    await page.goto(`${HERE}/import-features`);
    await page.getByLabel('Folder of features to import').setInputFiles(info.outputPath('suite'));
    await expect(page.getByText('Nothing to import')).toBeVisible();
  });
});

test('a scenario covers a condition by a value in its step, which counts as it is written', async ({ page }) => {
  await signIn(page, 'Rui M.', '/scenarios/F-6');
  await editor(page).getByText('Scenario: A receipt of 61 days is too old').click();
  await expect(page.getByRole('heading', { name: 'Covers, F-6/3' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Link a condition' }).fill('age of the repair');
  await page.getByRole('option', { name: /Age of the repair receipt/ }).click();
  await page.getByRole('button', { name: 'Choose the values it uses' }).click();
  await page.getByLabel('age in days is carried by').selectOption({ label: '61, in a repair receipt of 61 days ago' });
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Done' }).click();
  const margin = page.getByRole('complementary', { name: 'Margin notes' });
  await expect(margin.getByRole('button', { name: 'Values it uses' })).toBeVisible();
  await expect(margin.getByText(/^\d+ of 7$/)).toBeVisible();
  await saveVersion(page, 3);
  await margin.getByRole('link', { name: /Age of the repair receipt/ }).click();
  await expect(page.getByRole('link', { name: 'F-6/3' }).first()).toBeVisible();
  await page.getByRole('link', { name: 'F-6/3' }).first().click();
  await expect(editor(page)).toContainText('A receipt of 61 days is too old');
});

test('scenarios written twice become one outline, its rows are a grid, and a gap is filled with scenarios', async ({ page }) => {
  await signIn(page, 'Inês V.', '/scenarios');

  await test.step('what is written twice is compared, and made one', async () => {
    await page.getByRole('link', { name: 'Written twice' }).click();
    await page.getByRole('button', { name: 'Compare F-1/1 and F-1/4' }).click();
    await expect(page.getByRole('table', { name: 'F-1/1 beside F-1/4' })).toContainText('99500');
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Make one outline of the 2 in F-4' }).click();
    const dialog = page.getByRole('dialog', { name: 'One outline of 2 scenarios' });
    await expect(dialog.getByLabel('What the file would say')).toContainText('Half a cent goes up');
    await dialog.getByLabel('Name of column 2').fill('sum');
    await expectAccessible(page);
    await page.keyboard.press('Enter');
    await expect(dialog).toBeHidden();
    await expect(editor(page)).toContainText('Given the bill comes to <sum> €');
    // The dialog has only just gone: whoever saves sees first that there is something to save.
    await expect(page.getByRole('button', { name: /^Save v3/ })).toBeVisible();
    await saveVersion(page, 3);
  });

  await test.step('a row that is typed into the grid stands in the text', async () => {
    await editor(page).getByText('Given the bill comes to').click();
    await page.getByRole('button', { name: 'Rows as a grid' }).click();
    const grid = page.getByRole('region', { name: '<case>' }).getByRole('grid', { name: 'Examples 1' });
    await grid.getByRole('gridcell', { name: 'name of the next row: next row' }).click();
    await page.keyboard.type('Nothing');
    await page.keyboard.press('Tab');
    await page.keyboard.type('0');
    await page.keyboard.press('Enter');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await expect(editor(page)).toContainText(/\| Nothing +\| +0 \|/);
    await saveVersion(page, 4);
  });

  await test.step('rows go from a condition to the outline that covers it', async () => {
    await page.goto('/fonte-clara/condition/K-4');
    await page.getByRole('button', { name: /^Write cases/ }).first().click();
    await page.getByRole('button', { name: /^As what it is written/ }).click();
    await page.getByRole('option', { name: 'as scenarios' }).click();
    await expect(page.getByRole('button', { name: /^As what: rows of F-1\/2/ })).toBeVisible();
    await expect(page.getByLabel('What the file would say')).toContainText('| 12.5');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Add the rows' }).click();
    await expect(page.getByText('The rows stand in F-1 now.')).toBeVisible();
    await page.getByRole('button', { name: 'Open', exact: true }).click();
    await expect(editor(page)).toContainText(/\| 99999 +\| stored/);
  });

  await test.step('a scenario goes into another feature, and a drag puts one in front of another', async () => {
    await editor(page).getByText('Scenario: An empty reading').click();
    await page.getByRole('button', { name: 'Move to another feature' }).click();
    await page.getByRole('combobox', { name: 'The feature it goes to' }).fill('Replacing');
    await page.getByRole('option', { name: /Replacing a meter/ }).click();
    await expect(page.getByRole('dialog')).toContainText('What stands above it stays here: @readings');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Move it' }).click();
    await expect(page).toHaveURL(/\/scenarios\/F-3$/);
    await expect(editor(page)).toContainText('Scenario: An empty reading');
    await page.getByRole('button', { name: 'Pages', exact: true }).click();
    const [first, last] = [page.getByRole('region', { name: 'The new meter begins lower' }), page.getByRole('region', { name: 'An empty reading' })];
    await last.hover();
    const [from, to] = [await last.getByTitle(/^Drag the scenario/).boundingBox(), await first.boundingBox()];
    if (from === null || to === null) throw new Error('Both are seen');
    await page.mouse.move(from.x + 5, from.y + 5);
    await page.mouse.down();
    await page.mouse.move(to.x + 20, to.y + 20, { steps: 12 });
    await page.mouse.up();
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await expect.poll(async () => (await editor(page).innerText()).replaceAll(/\s+/g, ' ')).toMatch(/Scenario: An empty reading .*Scenario: The new meter begins lower/);
  });
});
