import { expect, test, type Page } from '@playwright/test';
import { UNASKED, expectAccessible, openAs, signIn } from './helpers.ts';

async function see(page: Page, choose: (dialog: ReturnType<Page['getByRole']>) => Promise<void>): Promise<void> {
  await page.getByRole('button', { name: /^What Olga S\. sees/ }).click();
  const dialog = page.getByRole('dialog', { name: 'What Olga S. sees' });
  await choose(dialog);
  await dialog.getByRole('button', { name: 'Set' }).click();
  await expect(dialog).toBeHidden();
}

test('an administrator keeps a reader to some modules: they read these and what they use, whatever address they come by, until they see everything again', async ({ page, browser }) => {
  await signIn(page, 'Nuno A.', '/people');
  const olga = await openAs(browser, 'Olga S.', '/cases');
  await expect(olga.getByRole('link', { name: /^C-4 / })).toBeVisible();
  await see(page, async (dialog) => {
    await dialog.getByLabel('only these modules').click();
    await expect(dialog.getByRole('button', { name: 'Set' })).toBeDisabled();
    await dialog.getByLabel('Bills').check();
    await expectAccessible(page);
  });
  await expect(page.getByRole('button', { name: 'What Olga S. sees: only Bills' })).toBeVisible();

  await test.step('what is open changes to the part at the next look', async () => {
    await olga.getByRole('link', { name: /^C-4 / }).first().click();
    const note = olga.getByRole('note', { name: 'As it was' });
    await expect(note).toContainText('Only Bills and what they use', UNASKED);
    await expect(olga).toHaveURL(/\/fonte-clara@\d+-part-/);
    await olga.goto('/fonte-clara/cases');
    await expect(olga.getByRole('link', { name: /^C-38 / })).toBeVisible();
    await expect(olga.getByRole('link', { name: /^C-4 / })).toHaveCount(0);
    await expectAccessible(olga);
    await olga.goto('/fonte-clara/cases/C-4');
    await expect(olga.getByText('There is no C-4 in this project.')).toBeVisible();
    await olga.goto('/fonte-clara@B-1/cases');
    await expect(note).toContainText('Only Bills');
  });

  await test.step('everything is there again', async () => {
    await see(page, (dialog) => dialog.getByLabel('everything in the project').click());
    await olga.getByRole('link', { name: 'Look for what is newer' }).click();
    await expect(olga).toHaveURL(/\/fonte-clara\//, UNASKED);
    await olga.goto('/fonte-clara/cases');
    await expect(olga.getByRole('link', { name: /^C-4 / })).toBeVisible(UNASKED);
    await expect(olga.getByRole('note', { name: 'As it was' })).toBeHidden();
  });
});
