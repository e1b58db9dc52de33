import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

/** As people make them: a title above, rows that part, long ids, semicolons and commas, words that are no value, and columns nobody knows. */
const SHEET = [
  'Cases of the counter, spring;;;;;;;;',
  ';;;;;;;;',
  'TC-ID;Title;Prio;Step #;Test Step;Test data;Expected result;Bearer;Checked',
  'At the counter;;;;;;;;',
  '47110000000000017;Deposit of <amount> euro;P1;1;Open the form of member <member> ;20,50;The form opens;Counter;x',
  ';;;2;Enter <amount> euro and confirm;;The receipt shows <amount>;;',
  '47110000000000018; Deposit below the limit ;urgent;1;Enter 19 euro;;It is refused;Nobody;',
  'By telephone;;;;;;;;',
  '47110000000000019;Told by telephone;High;1;Write down what is told;;;Telephone;',
  ';;;;;;Nothing is stored before it is read back;;',
].join('\r\n');

const PROJECT = '/verdura-counter';
const list = (page: Page) => page.getByRole('list', { name: 'Cases' });

async function bring(page: Page, name: string, buffer: Buffer): Promise<void> {
  await page.goto(`${PROJECT}/import-cases`);
  await page.getByLabel('File to import').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
}

test('in an empty project: a field of its own, cases from a messy sheet, words replaced in all of them, out to a workbook and in again', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await page.goto('/new-project');
  await expect(page.getByLabel('Name')).toBeFocused();
  await page.keyboard.type('Verdura counter');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/verdura-counter\/basis$/);

  await test.step('a field with choices is made for cases', async () => {
    await page.goto(`${PROJECT}/settings`);
    const fields = page.getByRole('region', { name: 'Fields', exact: true });
    await fields.getByRole('button', { name: 'add a field' }).click();
    await fields.getByLabel('Name of the field Field 1').fill('Bearer');
    await fields.getByLabel('Name of the field Field 1').press('Tab');
    await fields.getByRole('button', { name: 'Type of Bearer: Text' }).click();
    await page.getByRole('option', { name: 'One of a list' }).click();
    await fields.getByLabel('Choices of Bearer, one a line').fill('Counter\nTelephone');
    await fields.getByLabel('Choices of Bearer, one a line').press('Tab');
    await expectAccessible(page);
    await page.keyboard.press('Control+s');
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toHaveCount(0);
  });

  await test.step('the sheet is understood, what is not is named, and the cases come in', async () => {
    await bring(page, 'counter.csv', Buffer.from(SHEET, 'latin1'));
    await expect(page.getByText('3 added with 4 steps', { exact: false })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Bearer is: Bearer' })).toBeVisible();
    const problems = page.getByRole('list', { name: 'Problems in the file' });
    await expect(problems).toContainText('“urgent” is no priority');
    await expect(problems).toContainText('line 7, Bearer');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByRole('textbox', { name: 'Title of C-1' })).toHaveValue('Deposit of <amount> euro');
    await expect(page.getByRole('button', { name: 'Bearer of C-1: Counter' })).toBeVisible();
    await expect(list(page).getByRole('heading', { level: 2 })).toHaveText([/^At the counter/, /^By telephone/]);
  });

  await test.step('a field of its own is asked for like any other', async () => {
    await page.goto(`${PROJECT}/list/case?query=-has:bearer`);
    const table = page.getByRole('table', { name: 'Table of cases' });
    await expect(table.getByRole('link')).toHaveText(['Deposit below the limit']);
    await table.getByRole('button', { name: 'Bearer of C-2: none' }).click();
    await page.getByRole('option', { name: 'Telephone' }).click();
    await expect(table.getByRole('link')).toHaveCount(0);
    await page.getByRole('combobox', { name: 'Filter the cases by a query' }).fill('bearer:telephone');
    await expect(table.getByRole('link')).toHaveText(['Deposit below the limit', 'Told by telephone']);
  });

  await test.step('words are replaced in all of them but one place, and names of parameters stay', async () => {
    await page.goto(`${PROJECT}/cases`);
    await list(page).getByRole('link').first().focus();
    await page.keyboard.press('Control+a');
    await page.getByRole('toolbar', { name: 'Selected cases' }).getByRole('button', { name: 'Replace in texts' }).click();
    await expect(page.getByLabel('Find')).toBeFocused();
    await page.keyboard.type('euro');
    await page.keyboard.press('Tab');
    await page.keyboard.type('EUR');
    await expect(page.getByRole('status').first()).toContainText('3 matches in 3 places of 2 artefacts');
    await page.getByRole('checkbox', { name: 'Title of C-1' }).uncheck();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Replace in 2 places' }).click();
    await expect(page.getByText('Replaced in 2 artefacts')).toBeVisible();
    await page.goto(`${PROJECT}/cases/C-1`);
    await expect(page.getByRole('textbox', { name: 'Title of C-1' })).toHaveValue('Deposit of <amount> euro');
    await expect(page.getByText('EUR and confirm')).toBeVisible();
  });

  await test.step('written out and read in again there is nothing to do; what is changed in the file is', async () => {
    await page.getByRole('button', { name: 'Cases from and to files' }).click();
    await page.getByRole('menuitem', { name: 'Export all 3 cases' }).click();
    await page.getByLabel('CSV').check();
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the file' }).click();
    const text = readFileSync(await (await saved).path(), 'utf8');
    await bring(page, 'verdura-counter-cases.csv', Buffer.from(text));
    await expect(page.getByText('0 added with 0 steps · 0 changed · 3 as they are')).toBeVisible();
    await expect(page.getByText('Nothing to import')).toBeVisible();
    await bring(page, 'verdura-counter-cases.csv', Buffer.from(text.replace('It is refused', 'It is refused with a reason')));
    await expect(page.getByRole('region', { name: 'Changed cases' })).toContainText('with a reason');
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByRole('article').getByText('It is refused with a reason')).toBeVisible();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(page.getByText('The import is undone.')).toBeVisible();
    await expect(page.getByRole('article').getByText('It is refused with a reason')).toHaveCount(0);
  });
});
