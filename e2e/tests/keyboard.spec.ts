import { expect, test } from '@playwright/test';
import { PROJECT, paste, signIn, takeNewParameter } from './helpers.ts';

test('a case is found, written and saved with the keyboard alone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Inês V.' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('c');
  await expect(page).toHaveURL(`${PROJECT}/cases`);
  await expect(page.getByRole('heading', { name: /^Cases/ })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type('Written by keyboard');

  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Open the form of <met');
  await takeNewParameter(page);
  await page.keyboard.press('Enter');
  await page.keyboard.type('Confirm');
  await page.keyboard.press('Tab');
  await page.keyboard.type('It is <answer');
  await takeNewParameter(page);
  await page.keyboard.press('Enter');
  await page.keyboard.type('Leave');
  const steps = page.getByRole('list', { name: 'Steps' }).getByRole('listitem');
  await expect(steps).toHaveCount(4);
  await page.keyboard.press('Alt+ArrowUp');
  await expect(steps.nth(1)).toContainText('Leave');
  await page.keyboard.press('Alt+ArrowDown');
  await page.keyboard.press('Enter');
  await paste(page, '1. Sign out => the cover is shown\n2. Close the window\n');
  await expect(steps).toHaveCount(6);
  await expect(steps.nth(3)).toContainText('the cover is shown');
  await page.keyboard.press('Escape');

  await page.getByRole('gridcell', { name: 'name of the next row' }).focus();
  await page.keyboard.type('first');
  await page.keyboard.press('Tab');
  await page.keyboard.type('M-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('gridcell', { name: 'met of first' })).toHaveText('M-1');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('F2');
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('gridcell', { name: 'met of first' })).toHaveText('M-12');
  await page.keyboard.press('Control+s');
  await expect(page.getByText('v2 · saved')).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('written key');
  await expect(page.getByRole('option', { name: /Written by keyboard/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Find or do anything' })).toBeFocused();
  await page.keyboard.type('go to the journal');
  await expect(page.getByRole('option')).toHaveCount(1);
  await expect(page.getByRole('option', { name: /Go to the journal/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(`${PROJECT}/journal`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Written by keyboard' }).first()).toContainText('saved v2');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help' })).toContainText('Find or do anything');
});

test('what is typed while the find field is still on its way stands in it when it comes', async ({ page }) => {
  let letIn: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (letIn = resolve));
  await page.route(/\/assets\/FindOrDo-/, async (route) => {
    await held;
    await route.continue();
  });
  await signIn(page, 'Inês V.', '/coverage');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('go to the');
  await expect(page.getByRole('textbox', { name: 'Find or do anything' })).toHaveValue('go to the');
  letIn();
  const field = page.getByRole('combobox', { name: 'Find or do anything' });
  await expect(field).toBeFocused();
  await page.keyboard.type(' journal');
  await expect(field).toHaveValue('go to the journal');
  await expect(page.getByRole('option', { name: /Go to the journal/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(`${PROJECT}/journal`);
});
