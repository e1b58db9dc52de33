import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

test('the past is counted from the journal; by keyboard to a day on which the curve bent, to what was done on it, and to the project of then', async ({ page }) => {
  await signIn(page, 'Inês V.', '/coverage');
  await page.getByRole('link', { name: 'Over time' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Coverage over time' })).toBeVisible();
  const days = page.getByRole('table', { name: /^Days/ });
  await expect(days).toBeVisible();
  await expect(page.getByText(/Counting the past/)).toHaveCount(0);
  await expect(page.getByRole('img', { name: /^share shown\. \d+ moments/ })).toBeVisible();
  await expectAccessible(page);

  await test.step('the day that lost most', async () => {
    const lost = days.getByRole('row').filter({ hasText: /−\d\d/ }).first();
    await lost.getByRole('link').focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: /requirements? came to something else/ })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'What was done' })).toBeVisible();
    await expectAccessible(page);
    await page.reload();
    await expect(page.getByRole('heading', { name: /requirements? came to something else/ })).toBeVisible();
  });

  await test.step('back to all days, and one requirement', async () => {
    await page.getByRole('button', { name: 'All days' }).click();
    await page.getByRole('button', { name: /^Of/ }).click();
    await page.getByRole('option', { name: 'one requirement' }).click();
    await expect(page.getByText('Choose the requirement')).toBeVisible();
    await page.getByRole('combobox', { name: 'Requirement' }).fill('Valid reading');
    await page.getByRole('option', { name: /^R-3 / }).click();
    await expect(page.getByRole('img', { name: /R-3: from/ })).toBeVisible();
    await expect(page.getByRole('combobox', { name: 'Requirement' })).toHaveAttribute('placeholder', /^R-3 Valid reading/);
  });

  await test.step('a click on a point leads to its day, from there to the project of then', async () => {
    const chart = page.getByRole('img', { name: /R-3: from/ });
    const box = (await chart.boundingBox())!;
    await chart.click({ position: { x: box.width * 0.75, y: box.height / 2 } });
    await page.getByRole('link', { name: 'Look back at the project of then' }).click();
    await expect(page.getByRole('heading', { name: 'Design coverage' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Over time' })).toHaveCount(0);
  });
});
