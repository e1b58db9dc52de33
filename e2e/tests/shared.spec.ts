import { expect, test, type Page } from '@playwright/test';
import { discard, expectAccessible, items, paste, PROJECT, saveVersion, signIn, takeNewParameter } from './helpers.ts';

const steps = (page: Page) => page.getByRole('list', { name: 'Steps', exact: true }).locator('> li');

/** Puts in what an id names, by / in an empty step at the end. */
async function putIn(page: Page, id: string): Promise<void> {
  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await page.keyboard.press('/');
  await page.keyboard.type(id);
  await expect(page.getByRole('option')).toHaveCount(1);
  await expect(page.getByRole('region', { name: 'What it holds' })).not.toBeEmpty();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

test('steps are taken out, used elsewhere, called with a row and with one’s own values, changed knowing whom it reaches, and read through', async ({ page }) => {
  let shared = '';
  let called = '';

  await test.step('write a case with the keyboard alone', async () => {
    await signIn(page, 'Inês V.', '/cases');
    await expect(page.getByRole('heading', { name: /^Cases/ })).toBeVisible();
    await page.keyboard.press('n');
    await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
    await page.keyboard.type('Pay at the counter');
    await page.getByRole('button', { name: /Write the next step/ }).focus();
    await page.keyboard.press('Enter');
    for (const line of ['Open the till', 'Enter <amount']) {
      await page.keyboard.type(line);
      if (line.includes('<')) await takeNewParameter(page);
      await page.keyboard.press('Enter');
    }
    await page.keyboard.type('Print the receipt');
    await page.keyboard.press('Tab');
    await page.keyboard.type('It says <amount>');
    await expect(page.getByRole('option')).toHaveCount(0);
    await page.keyboard.press('Escape');
    await expect(steps(page)).toHaveCount(4);
    await page.getByRole('gridcell', { name: 'name of the next row' }).focus();
    for (const [name, value] of [['little', '1.00'], ['much', '999.99']] as const) {
      await page.keyboard.type(name);
      await page.keyboard.press('Tab');
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
      await expect(page.getByRole('gridcell', { name: `amount of ${name}` })).toHaveText(value);
      // Enter leads to the value of the next row; its name stands before it.
      await expect(page.getByRole('gridcell', { name: 'amount of the next row' })).toBeFocused();
      await page.keyboard.press('ArrowLeft');
    }
    await saveVersion(page, 2);
    called = page.url().split('/').at(-1) ?? '';
    await page.keyboard.press('Escape');
    await page.goto(`${PROJECT}/cases`);
    await expect(page.getByRole('heading', { name: /^Cases/ })).toBeVisible();
    await page.keyboard.press('n');
    await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
    await page.keyboard.type('Pay with coins');
    await page.getByRole('button', { name: /Write the next step/ }).focus();
    await paste(page, 'Open the till\nEnter 7.50\nCount the coins');
    await page.keyboard.press('Escape');
    await saveVersion(page, 2);
    await page.goto(`${PROJECT}/cases/${called}`);
  });

  await test.step('take two steps out; nothing of what is executed changes', async () => {
    await page.getByRole('checkbox', { name: 'Select step 1' }).focus();
    await page.keyboard.press('Space');
    await page.getByRole('checkbox', { name: 'Select step 2' }).focus();
    await page.keyboard.press('Space');
    await page.getByRole('button', { name: 'take out into shared steps' }).click();
    await expect(page.getByRole('group', { name: /The same run stands elsewhere/ })).toContainText('<amount> ← 7.50');
    await page.keyboard.type('Enter an amount at the till');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/was made of 2 steps .* stands in 1 other case as well/)).toBeVisible();
    await expect(steps(page).first()).toContainText('Enter an amount at the till');
    await expect(page.getByText('2 written, 1 with an expected result, 3 when all is opened')).toBeVisible();
    shared = (await steps(page).first().getByRole('link').first().textContent()) ?? '';
    await steps(page).first().getByRole('button', { name: `Open ${shared} in place` }).click();
    await expect(steps(page).first()).toContainText('Enter <amount>');
  });

  await test.step('use it elsewhere, and call the case with its own row, then mine', async () => {
    await page.goto(`${PROJECT}/cases`);
    await expect(page.getByRole('heading', { name: /^Cases/ })).toBeVisible();
    await page.keyboard.press('n');
    await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
    await page.keyboard.type('A day at the counter');
    await putIn(page, shared);
    await putIn(page, called);
    await expect(steps(page)).toHaveCount(3);
    await expect(page.getByText(/From what is used here/)).toContainText('<amount>');
    await page.getByRole('group', { name: /^Step 2: call/ }).focus();
    await page.keyboard.press('v');
    await page.getByLabel('Row of the called case').selectOption({ label: 'much' });
    await expect(page.getByRole('radio', { name: /^one:/ })).toBeChecked();
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(steps(page).nth(1)).toContainText('its row “much”');
    await page.getByRole('group', { name: /^Step 1: shared/ }).focus();
    await page.keyboard.press('v');
    await page.getByLabel('What amount is given').fill('50.00');
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('group', { name: /^Step 2: call/ }).focus();
    await page.keyboard.press('v');
    await page.getByRole('radio', { name: /^every row/ }).check();
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(page.getByText('0 rows · 2 instances')).toBeVisible();
    await saveVersion(page, 2);
  });

  await test.step('read it through, both instances', async () => {
    await page.getByRole('link', { name: 'Read through' }).click();
    const lines = page.getByRole('list', { name: 'Steps to be done' });
    await expect(lines).toContainText('Enter 50.00');
    await expect(lines).toContainText('It says 1.00');
    await expectAccessible(page);
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText('instance 2 of 2')).toBeVisible();
    await expect(lines).toContainText('It says 999.99');
    await page.keyboard.press('ArrowDown');
    await expect(lines.locator('[aria-current=step]')).toContainText('Enter 50.00');
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeHidden();
    await expect(lines).toContainText('It says 999.99');
    await page.emulateMedia({ media: 'screen' });
  });

  await test.step('change the shared steps, seeing whom it reaches; a circle is refused', async () => {
    await page.goto(`${PROJECT}/shared/${shared}`);
    await expect(page.getByText('Used by')).toBeVisible();
    await page.getByRole('textbox', { name: 'Action of step 1' }).click();
    await page.keyboard.press('End');
    await page.keyboard.type(' with the key');
    await expect(page.getByText(/^Saving reaches 3 cases with \d+ instances/)).toBeVisible();
    await saveVersion(page, 2);
    await putIn(page, called);
    await page.keyboard.press('Control+s');
    await expect(page.getByText(new RegExp(`would lead in a circle: ${shared} uses ${called} uses ${shared}`))).toBeVisible();
    await discard(page);
    await page.goto(`${PROJECT}/read/${called}`);
    await expect(page.getByRole('list', { name: 'Steps to be done' })).toContainText('Open the till with the key');
  });

  await test.step('put it back in one case; the other keeps it', async () => {
    await page.goto(`${PROJECT}/cases/${called}`);
    await steps(page).first().getByRole('button', { name: `Open ${shared} in place` }).click();
    await page.getByRole('button', { name: 'put back as plain steps here' }).click();
    await expect(steps(page)).toHaveCount(4);
    await saveVersion(page, 4);
    await page.goto(`${PROJECT}/shared/${shared}`);
    await expect(page.getByText('A day at the counter')).toBeVisible();
  });
});

test('a pinned use shows what is newer and moves to it; what a called case shows counts through the caller', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases/C-39');
  const pinned = steps(page).nth(3);
  await expect(pinned).toContainText('pinned to v1; v2 is there');
  await pinned.getByRole('button', { name: 'move to v2' }).click();
  await expect(pinned).toContainText('pinned to v2');
  await discard(page);
  await expect(pinned).toContainText('pinned to v1');
  await page.getByRole('link', { name: 'C-1', exact: true }).first().click();
  await page.getByRole('link', { name: /Meter number by length/ }).first().click();
  await expect(items(page).filter({ hasText: 'C-39' }).first()).toBeVisible();
});
