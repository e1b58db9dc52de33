import { expect, test } from '@playwright/test';
import { PROJECT, expectAccessible, items, paste, saveVersion, signIn } from './helpers.ts';

test('from a requirement to a coverage number', async ({ page }) => {
  await signIn(page, 'Rui M.', '/basis');

  await test.step('write a requirement', async () => {
    await page.getByRole('button', { name: 'New', exact: true }).click();
    const title = page.getByRole('textbox', { name: /^Title of R-/ });
    await expect(title).toBeFocused();
    await title.fill('Deposit for a meter');
    await page.getByRole('button', { name: 'Write it' }).click();
    await page.keyboard.type('The deposit is a whole amount from 20 to 500, **paid in advance**. It is given back on leaving.');
    await page.keyboard.press('Escape');
    await page.getByLabel('Module', { exact: true }).fill('Tariff bands');
    await expect(page.getByText('kept as draft')).toBeVisible();
    await saveVersion(page, 2);
  });

  await test.step('mark words in it', async () => {
    await page.getByRole('link', { name: 'Mark conditions in its text' }).click();
    await expect(page.getByText('None yet: this requirement is not analysed')).toBeVisible();
    await page.getByText('The deposit is a whole amount').evaluate((element) => {
      const node = element.firstChild!;
      const range = document.createRange();
      const start = node.textContent!.indexOf('a whole amount');
      range.setStart(node, start);
      range.setEnd(node, start + 'a whole amount from 20 to 500'.length);
      window.getSelection()!.removeAllRanges();
      window.getSelection()!.addRange(range);
    });
    await page.getByRole('button', { name: 'Make a condition' }).click();
    await expect(page.getByRole('textbox', { name: /^Title of K-/ })).toHaveValue('A whole amount from 20 to 500');
    await page.keyboard.type('Amount of the deposit');
    await expect(items(page)).toHaveCount(1);
  });

  await test.step('give it value ranges', async () => {
    await page.getByRole('button', { name: 'Model: plain' }).click();
    await page.getByRole('option', { name: 'value ranges' }).click();
    await page.getByLabel('Name of the field').fill('deposit');
    for (const [i, [name, from, to, valid]] of [['too little', '', '19', false], ['allowed', '20', '500', true], ['too much', '501', '', false]].entries()) {
      await page.getByRole('button', { name: 'Add an interval' }).click();
      await page.getByLabel('Name of the interval').nth(i).fill(String(name));
      await page.getByLabel(`${name} from`, { exact: true }).fill(String(from));
      await page.getByLabel(`${name} to`, { exact: true }).fill(String(to));
      if (valid === false) await page.getByRole('button', { name: `${name} is valid; change it` }).click();
    }
    await page.getByRole('button', { name: 'letters', exact: true }).click();
    await expect(items(page)).toHaveCount(8);
    await page.getByLabel('allowed to', { exact: true }).fill('490');
    await expect(page.getByText('nothing is said of 491 to 500')).toBeVisible();
    await page.getByLabel('allowed to', { exact: true }).fill('500');
    await expect(page.getByRole('figure', { name: 'deposit: too little, allowed, too much' })).toBeVisible();
    await saveVersion(page, 2);
  });

  await test.step('write a case with a parameter and rows', async () => {
    await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: 'Write cases' }).click();
    await page.getByRole('button', { name: 'Begin with an empty case' }).click();
    await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
    await page.getByRole('button', { name: /Write the next step/ }).click();
    await page.keyboard.type('Enter the deposit <deposit');
    await page.getByRole('option', { name: /<deposit>\s*new parameter/ }).click();
    await page.keyboard.press('Tab');
    await page.keyboard.type('It is taken or refused');
    await expect(page.getByLabel('Name of the parameter deposit')).toHaveValue('deposit');
    await page.getByRole('button', { name: 'Choose the parameters it uses' }).click();
    await page.getByLabel('deposit is carried by').selectOption({ label: '<deposit>' });
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('gridcell', { name: 'name of the next row' }).click();
    await paste(page, 'least\t20\nmost\t500\n');
    await expect(page.getByRole('row').filter({ hasText: 'least' })).toContainText('allowed · first of allowed');
    await expect(page.getByText('3 of 8')).toBeVisible();
    await page.getByRole('gridcell', { name: 'name of most' }).click();
    await expect(page.getByRole('list', { name: 'Steps' })).toContainText('<deposit>500');
  });

  await test.step('fill the gap', async () => {
    await page.getByRole('button', { name: 'Generate rows for the 5 missing' }).click();
    const rows = page.getByRole('table', { name: 'Rows to be added' }).getByRole('row');
    await expect(rows).toHaveCount(4);
    await page.getByRole('button', { name: 'Add 3 rows' }).click();
    await expect(page.getByText('8 of 8')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText('3 of 8')).toBeVisible();
    await page.keyboard.press('Control+Shift+z');
    await expect(page.getByText('8 of 8')).toBeVisible();
    await expectAccessible(page);
    await saveVersion(page, 2);
  });

  await test.step('every item says what shows it', async () => {
    await page.getByRole('link', { name: /^K-\d+ Amount of the deposit$/ }).first().click();
    await expect(items(page).filter({ hasText: 'shown:' })).toHaveCount(8);
  });

  await test.step('see it on the wall', async () => {
    await page.goto(`${PROJECT}/coverage`);
    const row = page.getByRole('listitem').filter({ hasText: 'Deposit for a meter' });
    await page.getByRole('list', { name: 'Requirements and their coverage items' }).evaluate((wall) => wall.scrollTo(0, wall.scrollHeight));
    await expect(row).toContainText('100 %');
    await row.getByRole('link', { name: '100 %' }).click();
    await expect(page.getByRole('list', { name: 'Items', exact: true }).getByRole('listitem')).toHaveCount(8);
    await page.getByRole('list', { name: 'Items', exact: true }).getByRole('link').first().click();
    await expect(page).toHaveURL(/conditions\/R-\d+\/K-\d+#item-1/);
  });

  await test.step('compare and restore versions', async () => {
    await page.goBack();
    await page.goto(`${PROJECT}/basis`);
    await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('deposit');
    await page.getByRole('list', { name: 'Outline of requirements' }).getByRole('link', { name: /Deposit for a meter/ }).click();
    await page.getByRole('link', { name: 'Versions', exact: true }).click();
    await expect(page.getByRole('list', { name: 'Versions' }).getByRole('listitem')).toHaveCount(2);
    await expect(page.getByRole('region', { name: 'Difference' })).toContainText('The deposit is a whole amount from 20 to 500');
    await page.getByLabel('to', { exact: true }).last().click();
    await expect(page.getByRole('heading', { name: 'From v1 to v1' })).toBeVisible();
    await page.getByRole('button', { name: 'Restore v1' }).click();
    await expect(page.getByRole('list', { name: 'Versions' })).toContainText('Restored from v1');
    await page.getByRole('button', { name: 'Undo: saved v3 of' }).click();
    await page.getByRole('link', { name: /^Back to R-/ }).click();
    await expect(page.getByRole('textbox', { name: /^Title of R-/ })).toHaveValue('Deposit for a meter');
  });
});

test('leaving an item out with a reason changes the number, and taking it back restores it', async ({ page }) => {
  await signIn(page, 'Inês V.', '/condition/K-22');
  await expect(items(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'leave out', exact: true }).click();
  await page.getByLabel(/^Reason for leaving out/).fill('The form has no empty state');
  await page.getByRole('button', { name: 'leave out', exact: true }).click();
  await expect(items(page)).toContainText('left out: The form has no empty state (Inês V.');
  await expect(page.getByText('1 coverage item · 0 of 0 shown')).toBeVisible();
  await page.getByRole('button', { name: 'take back' }).click();
  await expect(items(page)).toContainText('nothing shows it');
  // Back where the version stands, there is no draft left to come back to.
  await expect(page.getByRole('button', { name: /^Save v/ })).toHaveCount(0);
  await page.reload();
  await expect(items(page)).toContainText('nothing shows it');
});

test('filling the gap from the condition adds the rows that were missing to the case that has the others', async ({ page }) => {
  await signIn(page, 'Inês V.', '/condition/K-40');
  await expect(items(page).filter({ hasText: 'linked only' })).toHaveCount(1);
  await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: /^Write cases/ }).click();
  await page.getByRole('button', { name: /^Add to C-/ }).click();
  await expect(items(page).filter({ hasText: 'shown:' })).toHaveCount(3);
});

test('the outline is moved by drag and by keyboard', async ({ page }) => {
  await signIn(page, 'Rui M.', '/basis/R-13');
  const order = async () => (await page.getByRole('list', { name: 'Outline of requirements' }).getByRole('listitem').allTextContents()).map((t) => /^R-\d+/.exec(t)?.[0]);
  await expect.poll(order).toContain('R-13');
  const before = await order();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await order()).indexOf('R-13')).toBe(before.indexOf('R-13') - 1);
  await page.keyboard.press('Alt+ArrowDown');
  // How many rows are drawn below the window is the list's own business.
  const above = (rows: Awaited<ReturnType<typeof order>>) => rows.slice(0, before.indexOf('R-13') + 3);
  await expect.poll(async () => above(await order())).toEqual(above(before));
  const grip = page.getByRole('button', { name: 'Drag R-13' });
  await grip.hover();
  await page.mouse.down();
  const target = await page.getByRole('link', { name: /R-9 / }).boundingBox();
  if (target === null) throw new Error('R-9 is in the outline');
  await page.mouse.move(target.x + 40, target.y + target.height / 2, { steps: 8 });
  await page.mouse.move(target.x + 40, target.y + 3, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await order()).indexOf('R-13')).toBe(before.indexOf('R-9'));
});
