import { expect, test, type Page } from '@playwright/test';
import { PROJECT, expectAccessible, openAs, paste, saveVersion, signIn } from './helpers.ts';

const cell = (page: Page, name: string) => page.getByRole('gridcell', { name, exact: true });
const grid = (page: Page, name = 'Data rows') => page.getByRole('grid', { name });
const tools = (page: Page) => page.getByRole('toolbar', { name: 'Selected rows' });
const names = async (page: Page, of = 'Data rows'): Promise<string[]> => (await grid(page, of).locator('[data-cell$="/0"]').allTextContents()).map((t) => t.trim()).filter((t) => t !== 'next row');

async function column(page: Page, name: string, what: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^Column ${name}`) }).click();
  await page.getByRole('menuitem', { name: what }).click();
}

test('a data set is made, typed by a condition, filled until everything is shown, thinned out, and its versions tell rows apart', async ({ page }) => {
  await signIn(page, 'Inês V.', '/shared?left=data');
  await page.getByRole('button', { name: 'New' }).click();
  await expect(page.getByRole('textbox', { name: /^Title of D-/ })).toBeFocused();
  await page.keyboard.type('Readings by hand');
  const add = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'add a column' }).click();
    await page.getByRole('textbox', { name: 'Name of the new column' }).fill(name);
    await page.keyboard.press('Enter');
  };
  await add('reading');
  await add('answer');
  await cell(page, 'name of the next row: next row').click();
  await paste(page, 'one\t1\taccepted\ntwo\t2\taccepted\nodd\t1-2\trefused');
  await expect.poll(() => names(page)).toEqual(['one', 'two', 'odd']);
  await saveVersion(page, 2);

  await page.getByRole('combobox', { name: 'A condition it serves' }).fill('K-4');
  await page.getByRole('option', { name: /K-4 / }).click();
  await expect(page.getByText(/its rows show \d+ of 10 items/)).toBeVisible();
  // What lies in no part of the condition is marked where it stands.
  await expect(cell(page, 'reading of odd: 1-2')).toHaveAttribute('title', /is no value of K-4 reading/);
  await page.getByRole('button', { name: 'Generate rows for what is missing' }).click();
  await page.getByRole('dialog').getByRole('button', { name: /^Add \d+ rows/ }).click();
  await expect(page.getByText('its rows show 9 of 10 items; 1 waits for an answer')).toBeVisible();

  await expect(page.getByText(/rows? shows? nothing that others do not/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^put (it|them) aside$/ }).click();
  await expect(page.getByText('its rows show 9 of 10 items; 1 waits for an answer')).toBeVisible();
  await expect(page.getByText(/rows? shows? nothing that others do not/)).toBeHidden();

  await cell(page, 'name of odd: odd').click();
  await tools(page).getByRole('button', { name: 'invalid', exact: true }).click();
  await expect(grid(page).getByRole('img', { name: 'marked invalid' })).toHaveCount(1);
  await page.getByRole('button', { name: 'say what each is for' }).click();
  await cell(page, 'what it is for of odd: empty').click();
  await page.keyboard.type('As a spreadsheet writes it');
  await page.keyboard.press('Enter');
  await saveVersion(page, 3);
  await page.getByRole('link', { name: 'Versions', exact: true }).click();
  await expect(page.getByText('As a spreadsheet writes it')).toBeVisible();
});

test('the grid is ordered and filtered as a view; columns are hidden, moved, typed and renamed; the kept order stays', async ({ page }) => {
  await signIn(page, 'Rui M.', '/shared/D-6');
  const kept = ['in full', 'part', 'twice', 'unknown reference', 'short reference', 'in the future'];
  await expect.poll(() => names(page)).toEqual(kept);
  await column(page, 'amount', 'Order by it, up');
  await expect.poll(async () => (await names(page))[0]).toBe('part');
  await column(page, 'reference', 'Filter');
  await page.getByRole('textbox', { name: 'Filter by reference' }).fill('=0000042');
  // In a column of texts 42 is another reference.
  await expect.poll(async () => (await names(page)).length).toBe(4);
  await page.getByRole('textbox', { name: 'Filter by date' }).fill('>2026-12-31');
  await expect.poll(() => names(page)).toEqual(['in the future']);
  // What is seen alone is written where it is kept.
  await cell(page, 'booked as of in the future: the file is refused').dblclick();
  await page.keyboard.press('End');
  await page.keyboard.type(' whole');
  await page.keyboard.press('Enter');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'all, as kept' }).click();
  await expect.poll(() => names(page)).toEqual(kept);
  await expect(cell(page, 'booked as of in the future: the file is refused whole')).toBeVisible();

  await column(page, 'date', 'Hide');
  await expect(page.getByRole('button', { name: /^Column date/ })).toBeHidden();
  await page.getByRole('button', { name: /^show <date>/ }).click();
  await column(page, 'date', 'Move to the left');
  await expect.poll(() => page.getByRole('columnheader').getByRole('button').allTextContents()).toEqual(['row', '<reference>', '<date>', '<amount>', '<booked as>']);
  await column(page, 'amount', 'Rename everywhere');
  await page.getByRole('textbox', { name: 'New name' }).fill('sum in euro');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Column sum in euro' })).toBeVisible();
  await saveVersion(page, 2);
  // The case that takes the column knows it by its id and runs as before.
  await page.getByRole('link', { name: 'C-44' }).click();
  await expect(grid(page, 'Rows of D-6').getByRole('gridcell', { name: 'amount of part: 10.00' })).toBeVisible();
  await expect(page.getByText('← column sum in euro')).toBeVisible();
});

test('rows are made of values combined under constraints and by chance, looked at first, doubles left out', async ({ page }) => {
  await signIn(page, 'Inês V.', '/shared/D-5');
  await expect(cell(page, 'member of firm: Forno da Vila')).toBeVisible();
  await page.getByRole('button', { name: 'Generate rows', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Generate rows' });
  await dialog.getByRole('checkbox', { name: 'Take since' }).uncheck();
  await dialog.getByRole('checkbox', { name: 'Take member' }).uncheck();
  await dialog.getByRole('textbox', { name: 'Values of language' }).fill('Portuguese, Galician');
  await dialog.getByRole('textbox', { name: 'Values of meter' }).fill('M-2207, M-3100, M-3254');
  await expect(dialog.getByRole('status')).toHaveText('6 combinations of values, 2 in rows that are there; 4 rows would show the rest.');
  await dialog.getByRole('textbox', { name: 'Constraints' }).fill('if meter = M-3100 then tongue = Galician');
  await expect(dialog.getByRole('status')).toContainText('No factor is called “tongue”.');
  await dialog.getByRole('textbox', { name: 'Constraints' }).fill('if meter = M-3100 then language = Galician');
  await expect(dialog.getByRole('button', { name: 'Add 3 rows' })).toBeEnabled();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Add 3 rows' }).click();
  await expect.poll(async () => (await names(page)).length).toBe(7);

  await page.getByRole('button', { name: 'Generate rows', exact: true }).click();
  await dialog.getByRole('button', { name: /^Made of/ }).click();
  await page.getByRole('option', { name: 'by chance' }).click();
  for (const name of ['member', 'meter', 'language']) await dialog.getByRole('checkbox', { name: `Take ${name}` }).uncheck();
  await dialog.getByRole('textbox', { name: 'Values of since' }).fill('');
  await dialog.getByRole('textbox', { name: 'since from' }).fill('2026-02-27');
  await dialog.getByRole('textbox', { name: 'since to' }).fill('2026-02-30');
  await expect(dialog.getByRole('status')).toContainText('The bounds of <since> are no values of its type');
  await dialog.getByRole('textbox', { name: 'since to' }).fill('2026-03-01');
  // Three days, and one of them stands in a row already.
  await expect(dialog.getByRole('status')).toHaveText('2 rows, none like another.');
  await dialog.getByRole('button', { name: 'Add 2 rows' }).click();
  await expect.poll(async () => (await names(page)).length).toBe(9);
  await page.getByRole('heading', { name: 'Rows' }).click();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await names(page)).length).toBe(4);
});

test('a case takes rows of a data set, runs some of them, follows a change or stays pinned, and makes them its own', async ({ page, browser }) => {
  await signIn(page, 'Inês V.', '/cases');
  await expect(page.getByRole('list', { name: 'Cases' }).getByRole('link').first()).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type('Counter by the clock');
  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await paste(page, 'Set the clock to <time> => It says <answer>');
  await page.keyboard.press('Escape');
  await page.getByRole('combobox', { name: 'Rows of a data set to take' }).fill('D-8');
  await page.getByRole('option', { name: /D-8 / }).click();
  const data = page.getByRole('region', { name: 'Data' });
  await expect(data).toContainText('4 rows · 4 instances');
  await expect(page.getByRole('link', { name: /K-41 / }).first()).toBeVisible();
  const rows = grid(page, 'Rows of D-8');
  await rows.getByRole('gridcell', { name: 'name of too early: too early' }).click();
  await expect(page.getByRole('list', { name: 'Steps', exact: true })).toContainText('08:29');
  await tools(page).getByRole('button', { name: 'do not run' }).click();
  await expect(data).toContainText('Runs 3 of 4 rows, chosen one by one.');
  await expect(data).toContainText('4 rows, 3 run · 3 instances');
  await saveVersion(page, 2);
  const id = /C-\d+/.exec(page.url())?.[0] ?? '';

  const other = await openAs(browser, 'Rui M.', '/shared/D-8');
  await cell(other, 'name of too late: too late').click();
  await tools(other).getByRole('button', { name: 'duplicate' }).click();
  await expect(other.getByText(/Saving reaches 1 case/)).toBeVisible();
  await saveVersion(other, 2);
  await expect(rows.getByRole('gridcell', { name: 'name of too late 2: too late 2' })).toBeVisible();
  // A row that is removed where one chose it is missed there.
  await cell(other, 'name of opening: opening').click();
  await tools(other).getByRole('button', { name: 'remove' }).click();
  await saveVersion(other, 3);
  await other.close();
  await expect(data).toContainText('1 chosen row is gone.');
  await data.getByRole('button', { name: 'run all' }).click();
  await expect(data).toContainText('4 rows · 4 instances');
  await expectAccessible(page);

  await column(page, 'time', 'Filter');
  await page.getByRole('textbox', { name: 'Filter by time' }).fill('>12:00');
  await page.getByRole('button', { name: 'run what passes the filter' }).click();
  await expect(data).toContainText('Runs 3 of 4 rows, those with <time> >12:00');
  await data.getByRole('button', { name: 'make them its own' }).click();
  await expect.poll(async () => (await names(page)).length).toBe(4);
  await expect(data).toContainText('4 rows, 3 run · 3 instances');
  await saveVersion(page, 3);

  await data.getByRole('button', { name: 'share these rows' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('Hours, once more');
  await page.getByRole('dialog').getByRole('button', { name: 'Share 4 rows' }).click();
  await expect(data).toContainText('Hours, once more');
  await expect(data).toContainText('4 rows, 3 run · 3 instances');
  await saveVersion(page, 4);

  // Another case calls it with chosen rows.
  await page.goto(`${PROJECT}/cases`);
  await expect(page.getByRole('list', { name: 'Cases' }).getByRole('link').first()).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type('Calls it');
  await page.getByRole('button', { name: /Write the next step/ }).click();
  await page.keyboard.type(`/${id}`);
  await page.getByRole('option', { name: new RegExp(id) }).click();
  await page.getByText('Counter by the clock').last().hover();
  await page.getByRole('button', { name: 'values', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: new RegExp(`Values of ${id}`) });
  await dialog.getByRole('radio', { name: 'chosen ones' }).check();
  await dialog.getByRole('checkbox', { name: 'closing' }).uncheck();
  await expect(dialog).toContainText('this case runs 3 times for each of its own');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText(/3 chosen rows: “too early”/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Data' })).toContainText('0 rows · 3 instances');
});

test('a word a condition does not know becomes another name of a value; a column is renamed while someone else types', async ({ page, browser }) => {
  await signIn(page, 'Inês V.', '/shared/D-4');
  await cell(page, 'household of good income: 3–4').dblclick();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('a family');
  await page.keyboard.press('Enter');
  await expect(page.getByText('is no value that K-44 knows.')).toBeVisible();
  await page.getByRole('button', { name: /^What a family is in K-44/ }).click();
  await page.getByRole('option', { name: '3–4' }).click();
  await expect(page.getByText('K-44 knows “a family” as another name of “3–4” now.')).toBeVisible();
  await expect(page.getByText('is no value that K-44 knows.')).toBeHidden();
  await expect(grid(page).getByRole('row', { name: /good income/ })).toContainText('rule 1');
  // What only names a value otherwise makes nothing suspect.
  await expect(page.getByText('It changed since.')).toBeHidden();

  const other = await openAs(browser, 'Rui M.', '/shared/D-4');
  await column(other, 'bracket', 'Rename everywhere');
  await other.getByRole('textbox', { name: 'New name' }).fill('income');
  await other.keyboard.press('Enter');
  await saveVersion(other, 2);
  await other.close();
  await expect(page.getByRole('button', { name: 'Column income' })).toBeVisible();
  await saveVersion(page, 3);
  await expect(cell(page, 'household of good income: a family')).toBeVisible();
  await expect(cell(page, 'income of good income: C')).toBeVisible();
});
