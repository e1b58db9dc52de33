import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

test('a link is given to somebody outside, who reads the case and nothing else, until it is ended', async ({ page, browser }) => {
  await signIn(page, 'Teresa L.', '/cases/C-4');
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('button', { name: 'Link to read' }).click();
  await page.getByRole('textbox', { name: /For whom/ }).fill('The supplier of the meters');
  await page.keyboard.press('Enter');
  const link = page.getByRole('textbox', { name: 'The link to read C-4' });
  await expect(link).toHaveValue(/\/shown#[\w-]{43}$/);
  await expectAccessible(page);

  const outside = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await outside.goto(await link.inputValue());
  await expect(outside.getByRole('heading', { level: 1 })).not.toBeEmpty();
  await expect(outside.getByRole('region', { name: /^instance 1 of/ }).getByRole('listitem').first()).toBeVisible();
  await expectAccessible(outside);
  // It opens nothing else.
  await outside.goto('/fonte-clara/cases/C-4');
  await expect(outside.getByRole('textbox', { name: 'Title' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.goto('/fonte-clara/people');
  const lines = page.getByRole('list', { name: 'Links to read' });
  await expect(lines).toContainText('The supplier of the meters');
  await expect(lines).toContainText('opened 1 time');
  await lines.getByRole('button', { name: /^End the link to C-4/ }).click();
  await expect(lines).toHaveCount(0);
  await outside.goBack();
  await outside.reload();
  await expect(outside.getByText(/This link opens nothing any more/)).toBeVisible();
  await outside.context().close();
});
