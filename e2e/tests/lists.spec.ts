import { expect, test } from '@playwright/test';
import { PROJECT, expectAccessible, signIn } from './helpers.ts';

test('cases are found by a query, kept as a query, changed together, and put back by one undo', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases');
  const list = page.getByRole('list', { name: 'Cases' });
  const query = page.getByRole('combobox', { name: 'Filter the cases by a query' });
  await query.pressSequentially('modu');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(query).toHaveValue('module:');
  await page.getByRole('option', { name: /Meter readings/ }).click();
  await expect(query).toHaveValue('module:"Meter readings" ');
  await query.press('End');
  await query.pressSequentially('(steps>4 or tag:boundary) -colour:red');
  await expect(page.getByText('There is no field colour')).toBeVisible();
  await expectAccessible(page);
  for (let letter = 0; letter < '-colour:red'.length; letter += 1) await page.keyboard.press('Backspace');
  const found = list.getByRole('link');
  const count = 3;
  await expect(found).toHaveText([/^C-4\D/, /^C-6\D/, /^C-43\D/]);

  await page.getByRole('button', { name: /^Queries/ }).click();
  await page.getByRole('menuitem', { name: 'Save this query' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Boundaries of readings');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto(`${PROJECT}/cases`);
  await page.getByRole('button', { name: /^Queries/ }).click();
  await expect(page.getByRole('menuitem', { name: /^Boundaries of readings/ })).toContainText(String(count));
  await page.getByRole('menuitem', { name: /^Boundaries of readings/ }).click();
  await expect(found).toHaveCount(count);

  // All that match, by keyboard; who owns them is set, and taken back whole.
  await found.first().focus();
  await page.keyboard.press('Control+a');
  const bar = page.getByRole('toolbar', { name: 'Selected cases' });
  await expect(bar).toContainText(`${count} selected`);
  await bar.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: /^What/ }).click();
  await page.getByRole('option', { name: 'Owner' }).click();
  await dialog.getByRole('combobox', { name: 'Owner' }).fill('Duarte P.');
  await expect(dialog.getByRole('status')).toContainText('will change');
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/given to Duarte P\.\. The journal can undo it/)).toBeVisible();
  await query.fill('owner:Duarte module:"Meter readings" (steps>4 or tag:boundary)');
  await expect(found).toHaveCount(count);
  await page.goto(`${PROJECT}/journal`);
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await page.goto(`${PROJECT}/cases?query=owner:Duarte module:"Meter readings" (steps>4 or tag:boundary)`);
  await expect(list).toBeVisible();
  await expect(found).not.toHaveCount(count);
});

test('all conditions stand in one list and one table, by what they show; the arrows lead through them', async ({ page }) => {
  await signIn(page, 'Inês V.', '/conditions?left=all&group=technique');
  const list = page.getByRole('list', { name: 'Conditions' });
  await expect(list.getByRole('heading', { name: /^Plain/ })).toBeVisible();
  await list.getByRole('link').first().click();
  const first = new URL(page.url()).pathname;
  // The list stays, and so does the focus in it.
  await list.getByRole('link').first().focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => new URL(page.url()).pathname).not.toBe(first);
  await expect(list).toBeVisible();
  await page.getByRole('combobox', { name: 'Filter the conditions by a query' }).fill('standing:gap or standing:linked');
  const asTable = page.getByRole('link', { name: 'Show the conditions as a table' });
  // The address has what is typed a moment before the page has.
  await expect(asTable).toHaveAttribute('href', /query=standing/);
  await asTable.click();
  const table = page.getByRole('table');
  await expect(table.getByRole('link').first()).toBeVisible();
  await expect(page.getByRole('status').first()).toContainText(/\d+ of \d+ conditions/);
  await page.getByRole('columnheader', { name: /^Coverage/ }).getByRole('button').click();
  await expect(page).toHaveURL(/sort=coverage/);
  await page.getByRole('button', { name: 'Columns' }).click();
  // The line moves to those that are not shown.
  await page.getByRole('checkbox', { name: 'Module' }).click();
  await expect(page.getByRole('checkbox', { name: 'Module' })).not.toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Module' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'Module' })).toHaveCount(0);
  await expectAccessible(page);
  // Remembered of the person.
  await page.goto(`${PROJECT}/list/condition`);
  await expect(page.getByRole('columnheader', { name: /^Coverage/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect(page.getByRole('columnheader', { name: 'Module' })).toHaveCount(0);
});

test('values are changed right in the table, by pointer and by keyboard', async ({ page }) => {
  await signIn(page, 'Inês V.', '/list/case?group=none&query=id:C-19');
  const cell = (name: RegExp) => page.getByRole('table').getByRole('button', { name });
  const before = /: (\w+)$/.exec((await cell(/^Priority of C-19/).getAttribute('aria-label')) ?? '')?.[1] ?? '';
  const after = before === 'Low' ? 'Medium' : 'Low';
  await cell(/^Priority of C-19/).click();
  await page.getByRole('option', { name: after, exact: true }).click();
  await expect(cell(new RegExp(`^Priority of C-19: ${after}`))).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await cell(/^Owner of C-19/).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Rui M.');
  await page.keyboard.press('Enter');
  await expect(cell(/^Owner of C-19: Rui M\./)).toBeVisible();
  await expectAccessible(page);
  await page.goto(`${PROJECT}/list/case?group=none&query=id:C-19`);
  await expect(cell(/^Owner of C-19: Rui M\./)).toBeVisible();
  await expect(cell(new RegExp(`^Priority of C-19: ${after}`))).toBeVisible();
});
