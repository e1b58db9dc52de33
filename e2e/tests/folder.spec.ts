import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

test('a baseline is saved as files, and a project is made of them: the same ids, states and coverage', async ({ page }) => {
  await signIn(page, 'Teresa L.', '/baselines/2');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as files' }).click();
  const zip = await saved;
  expect(zip.suggestedFilename()).toBe('fonte-clara-B-2.zip');
  const then = await page.getByRole('row', { name: /^coverage/ }).getByRole('cell').first().innerText();

  await page.goto('/new-project');
  await page.getByLabel('Name').fill('Zone of old designs');
  await expectAccessible(page);
  await page.getByLabel('A saved baseline', { exact: true }).setInputFiles(await zip.path());
  await expect(page).toHaveURL(/\/zone-of-old-designs\/coverage/);
  await expect(page.getByRole('link', { name: /^Coverage/ })).toContainText(then.replace(' %', ''));
  await page.goto('/zone-of-old-designs/cases/C-13');
  await expect(page.getByRole('textbox', { name: 'Title of C-13' })).toHaveValue('A bill with all four bands');
  await page.goto('/zone-of-old-designs/journal');
  await expect(page.getByText(/B-2/).first()).toBeVisible();

  await page.goto('/new-project');
  await page.getByLabel('Name').fill('Zone of nothing');
  await page.getByLabel('A saved baseline', { exact: true }).setInputFiles({ name: 'notes.zip', mimeType: 'application/zip', buffer: Buffer.from('hello') });
  await expect(page.getByRole('alert')).toContainText('it is no zip');
});
