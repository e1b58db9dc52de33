import { writeXlsx } from '@caderno/core/exchange';
import { expect, test } from '@playwright/test';
import { expectAccessible, saveVersion, signIn } from './helpers.ts';

/** As people make them: a title above, rows that part, a column called otherwise, texts of many lines, a double. */
const SHEET = [
  ['Requirements of the water office, draft 3', '', '', ''],
  ['', 'as agreed in spring', '', ''],
  ['Req ID', 'Name', 'Description', 'Prio'],
  ['Deposits', '', '', ''],
  ['W-1', 'Deposit of a meter', 'A deposit is a whole number of euros from 20 to 500.\nAnything else is refused.', 'must'],
  ['W-2', 'Refund', 'A deposit is refunded when the member leaves. Article 7 names who signs.', 'should'],
  ['Reminders', '', '', ''],
  ['W-3', 'First reminder', 'The 1st reminder goes out on Mondays and costs EUR 3.', 'could'],
];

test('a lead makes a project and comes from a messy workbook to the first number, by keyboard', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await page.goto('/new-project');
  await expect(page.getByLabel('Name')).toBeFocused();
  await page.keyboard.type('Serra Alta water');
  await expect(page.getByLabel('Key')).toHaveValue('serra-alta-water');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/serra-alta-water\/basis$/);

  await test.step('an empty project shows the way and claims nothing', async () => {
    const first = page.getByRole('region', { name: 'First steps' });
    await expect(first).toContainText('Bring in your requirements');
    await page.goto('/serra-alta-water/coverage');
    await expect(page.getByText('There are no requirements yet, so nothing can be measured.')).toBeVisible();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Help' })).toContainText('29119-4, 5.2.3');
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Import a file' }).focus();
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/import$/);
  });

  await test.step('the workbook comes in as it is', async () => {
    await page.getByLabel('File to import').setInputFiles({ name: 'water office.xlsx', mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', buffer: Buffer.from(await writeXlsx('Sheet 1', SHEET)) });
    await expect(page.getByRole('button', { name: /^Row of names: 3: Req ID/ })).toBeVisible();
    await expect(page.getByText('2 rows with one text only')).toBeVisible();
    await expect(page.getByText('5 added · 0 changed · 0 as they are')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Import', exact: true }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('Imported water office: 5 added, 0 changed.')).toBeVisible();
    await page.goto('/serra-alta-water/coverage');
    await expect(page.getByRole('heading', { name: 'Design coverage' })).toBeVisible();
    await expect(page.getByRole('link', { name: '3 of 3 requirements not analysed yet' })).toBeVisible();
  });

  await test.step('the words of the office come in as terms, and again change nothing', async () => {
    const terms = { name: 'words.csv', mimeType: 'text/csv', buffer: Buffer.from('Word;Synonyms;What it means\nDeposit;deposits;Money kept until the meter is given back\nMember;members, they;Whoever takes water from us\n') };
    await page.goto('/serra-alta-water/glossary');
    await page.getByLabel('File of terms').setInputFiles(terms);
    const dialog = page.getByRole('dialog', { name: 'Terms of words.csv' });
    await expect(dialog.getByRole('status')).toHaveText('2 terms added, 0 changed, 0 as they are.');
    await expectAccessible(page);
    await dialog.getByRole('button', { name: 'Take in 2 terms' }).click();
    await expect(page.getByText('also members, they')).toBeVisible();
    await page.getByLabel('File of terms').setInputFiles(terms);
    await expect(dialog.getByRole('status')).toHaveText('Nothing would change.');
    await dialog.getByRole('button', { name: 'Cancel' }).click();
  });

  await test.step('no false marks; the first condition, the first case, the first number', async () => {
    await page.goto('/serra-alta-water/basis');
    const outline = page.getByRole('list', { name: 'Outline of requirements' });
    await outline.getByRole('link', { name: /First reminder/ }).click();
    await expect(page.getByText('Nothing that could not be tested stands out.')).toBeVisible();
    await outline.getByRole('link', { name: /Deposit of a meter/ }).click();
    // Until it is there the text of the requirement before it can still be marked.
    await expect(page.getByRole('group', { name: 'Text to mark words in' })).toContainText('A deposit is a whole number');
    await page.getByRole('group', { name: 'Text to mark words in' }).focus();
    for (const key of ['ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Enter']) await page.keyboard.press(key);
    await expect(page.getByRole('textbox', { name: /^Title of K-1/ })).toBeFocused();
    await page.keyboard.type('The deposit is within its limits');
    await saveVersion(page, 2);
    await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: 'Write cases' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByText(/^Still missing in 1 case/)).toBeVisible();
    await dialog.getByLabel('Action of step 1').fill('Pay a deposit of 20 euros');
    await expect(dialog.getByText(/^Still missing in 1 case: its expected result only repeats the title/)).toBeVisible();
    await dialog.getByLabel('Expected result of step 1').fill('The receipt says 20 euros');
    await expect(dialog.getByText(/^Still missing/)).toHaveCount(0);
    await dialog.getByRole('button', { name: 'Write 1 case' }).click();
    await expect(page.getByText('1 coverage item · 1 of 1 shown · 100 %')).toBeVisible();
    await page.goto('/serra-alta-water/coverage');
    await expect(page.getByRole('link', { name: '2 of 3 requirements not analysed yet' })).toBeVisible();
    await expect(page.getByText('Every item there is is shown or waits, and 2 requirements are not analysed yet.')).toBeVisible();
    await expect(page.getByRole('region', { name: 'First steps' })).toHaveCount(0);
  });

  await test.step('signing out leaves nothing of the project on the page', async () => {
    await page.getByRole('button', { name: /: account$/ }).click();
    await page.getByRole('menuitem', { name: 'Sign out' }).click();
    await expect(page.getByText('Serra Alta')).toHaveCount(0);
    await expect(page).toHaveURL(/\/$/);
    await expect(page).toHaveTitle('Caderno');
  });
});
