import { expect, test, type Page } from '@playwright/test';
import { UNASKED, expectAccessible, openAs } from './helpers.ts';

const state = (page: Page) => page.getByRole('button', { name: /^State:/ });

test('asked from the page of a case, objected to, mended, agreed by two, frozen and compared; opened as it was and brought back; everybody sees it as it happens', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/cases/C-18');
  const teresa = await openAs(browser, 'Teresa L.', '/reviews');
  await expect(teresa.getByRole('link', { name: 'Bills of December' })).toBeVisible();

  await test.step('by keyboard, whom and why', async () => {
    await state(rui).focus();
    await rui.keyboard.press('Space');
    await expect(rui.getByRole('option', { name: 'In review' })).toBeVisible();
    await rui.waitForTimeout(200);
    await rui.keyboard.press('i');
    await rui.keyboard.press('Enter');
    await expect(rui.getByRole('textbox', { name: 'Title', exact: true })).toBeFocused();
    await rui.getByRole('checkbox', { name: 'Teresa L.' }).check();
    await rui.getByRole('checkbox', { name: 'Duarte P.' }).check();
    await expectAccessible(rui);
    await rui.getByRole('textbox', { name: 'Title', exact: true }).focus();
    await rui.keyboard.press('Enter');
    await expect(state(rui)).toHaveText('In review');
    await expect(rui.getByRole('link', { name: 'In review 3' })).toBeVisible();
  });

  await test.step('who is asked is told, reads it and objects', async () => {
    await expect(teresa.getByText('reviews ask you')).toBeVisible(UNASKED);
    await teresa.getByRole('list', { name: 'Reviews that are waiting' }).getByRole('link', { name: /C-18/ }).click();
    await expect(teresa.getByRole('heading', { name: 'What it says' })).toBeVisible();
    await expectAccessible(teresa);
    await teresa.keyboard.press('o');
    await teresa.keyboard.type('Which message does the form show?');
    await teresa.keyboard.press('Enter');
    await expect(teresa.getByRole('list', { name: 'Answers' })).toContainText('Which message does the form show?');
    await expect(state(rui)).toHaveText('Draft', UNASKED);
  });

  await test.step('mended, it is asked for again: she sees what changed', async () => {
    await rui.getByRole('textbox', { name: 'Action of step 1' }).click();
    await rui.keyboard.press('End');
    await rui.keyboard.type(' and read the message');
    await rui.keyboard.press('Control+s');
    await expect(rui.getByText('v2 · saved')).toBeVisible();
    await rui.getByRole('link', { name: 'In review 3' }).click();
    await rui.getByRole('button', { name: 'Ask again for C-18' }).click();
    await expect(teresa.getByRole('button', { name: 'Agree to v2' })).toBeVisible(UNASKED);
    await teresa.getByRole('button', { name: 'Agree to v2' }).click();
    await expect(rui.getByRole('list', { name: 'What is reviewed' })).toContainText('1 of 2', UNASKED);
  });

  await test.step('the second agrees; the case is agreed, its versions say by whom', async () => {
    const duarte = await openAs(browser, 'Duarte P.', '/reviews/3');
    await expect(duarte.getByRole('button', { name: 'Agree to v2' })).toBeVisible();
    await duarte.keyboard.press('a');
    await expect(duarte.getByText(/^all agreed,/)).toBeVisible();
    await expect(rui.getByText(/^all agreed,/)).toBeVisible(UNASKED);
    await rui.getByRole('link', { name: 'Open C-18' }).click();
    await expect(state(rui)).toHaveText('Agreed');
    await rui.getByRole('link', { name: 'Versions' }).click();
    const versions = rui.getByRole('list', { name: 'Versions' });
    await expect(versions.getByRole('listitem').filter({ hasText: 'v2' })).toContainText('Teresa L. agreed in review 3');
    await expect(versions.getByRole('listitem').filter({ hasText: 'v1' })).toContainText('Teresa L. objected in review 3');
    await duarte.context().close();
  });
  await test.step('frozen in a baseline, edited, compared; the other sees the baseline at once', async () => {
    await teresa.goto('/fonte-clara/baselines');
    await expect(teresa.getByRole('list', { name: 'Baselines' }).getByRole('link', { name: /Before the pilot/ })).toBeVisible();
    await rui.keyboard.press('Escape');
    await rui.keyboard.press('g');
    await rui.keyboard.press('n');
    await rui.getByRole('button', { name: 'Take a baseline' }).click();
    await expect(rui.getByRole('textbox', { name: 'Name' })).toBeFocused();
    await rui.keyboard.type('After the review');
    await rui.keyboard.press('Enter');
    await expect(rui.getByRole('heading', { name: 'After the review' })).toBeVisible();
    await expect(rui.getByText('Nothing changed.')).toBeVisible();
    await expectAccessible(rui);
    await expect(teresa.getByRole('link', { name: /After the review/ })).toBeVisible(UNASKED);
    await teresa.goto('/fonte-clara/cases/C-18');
    await teresa.getByRole('textbox', { name: 'Action of step 1' }).click();
    await teresa.keyboard.press('End');
    await teresa.keyboard.type(' twice');
    await teresa.keyboard.press('Control+s');
    await expect(teresa.getByText('v3 · saved')).toBeVisible();
    await expect(state(teresa)).toHaveText('Draft');
    await expect(teresa.getByRole('link', { name: 'v2 was agreed' })).toBeVisible();
    const changed = rui.getByRole('region', { name: 'Changed' }).getByRole('button', { name: /^C-18/ });
    await expect(changed).toContainText('v2 → v3', UNASKED);
    await changed.click();
    await expect(rui.locator('ins', { hasText: 'twice' })).toBeVisible();
    await rui.getByRole('button', { name: 'Check it' }).click();
    await expect(rui.getByText('All that it holds is as it was sealed.')).toBeVisible();
    await expectAccessible(rui);
  });
  await test.step('opened, it is the project as it was: read, not changed; the way back leads to the same page', async () => {
    await rui.getByRole('link', { name: 'Open the project as it was' }).click();
    await expect(rui.getByRole('note', { name: 'As it was' })).toContainText(/The project as it was in B-\d+ After the review/);
    await rui.goto(`${new URL(rui.url()).pathname.replace(/coverage$/, 'cases')}/C-18`);
    await expect(rui.getByRole('list', { name: 'Steps' })).not.toContainText('twice');
    await expect(rui.getByText('Agreed', { exact: true }).first()).toBeVisible();
    await expect(rui.getByRole('textbox', { name: /^Action of step/ })).toHaveCount(0);
    await expectAccessible(rui);
    await rui.getByRole('link', { name: 'This page now' }).click();
    await expect(rui).toHaveURL(/\/fonte-clara\/cases\/C-18$/);
    await expect(rui.getByRole('textbox', { name: 'Action of step 1' })).toContainText('twice');
  });
  await test.step('brought back, it is a new version; undone, it is again as it was before', async () => {
    await rui.goto('/fonte-clara/baselines');
    await rui.getByRole('checkbox', { name: 'Select C-18' }).click();
    await rui.getByRole('button', { name: 'Bring it back …' }).click();
    await expect(rui.getByRole('region', { name: 'What would change' })).toContainText('1 gets back what it said');
    await expectAccessible(rui);
    await rui.getByRole('button', { name: 'Bring it back', exact: true }).click();
    await expect(rui.getByText(/1 brought back to B-\d+\./)).toBeVisible();
    await expect(teresa.getByRole('textbox', { name: 'Action of step 1' })).not.toContainText('twice', UNASKED);
    await expect(rui.getByRole('region', { name: 'Changed' }).getByRole('button', { name: /^C-18/ })).toContainText('v2 → v4');
  });
  await rui.context().close();
  await teresa.context().close();
});
