import { expect, test } from '@playwright/test';
import { PROJECT, expectAccessible, signIn } from './helpers.ts';

const POSTBOX = `http://127.0.0.1:${process.env.MAIL_PAGE_PORT}`;

test('a case is sent by mail inside and outside; what came back is seen and taken back; the link in the mail leads to the case', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases/C-7');
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('button', { name: 'Send by mail' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('checkbox', { name: 'Olga S.' }).check();
  await dialog.getByRole('textbox', { name: /And to these addresses/ }).fill('nobody@council.example, board@council.example');
  await dialog.getByRole('textbox', { name: 'Note' }).fill('Is this how the counter does it?');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Send' }).click();
  await page.getByRole('button', { name: 'Mails you sent' }).click();
  const line = (to: string) => page.getByRole('list', { name: 'Mails you sent' }).getByRole('listitem').filter({ hasText: to });
  await expect(line('Olga S.')).toContainText('sent');
  await expect(line('nobody@council.example')).toContainText('550 Nobody has this address');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Take back the mail to nobody@council.example' }).click();
  await expect(line('nobody@council.example')).toBeHidden();
  await page.goto(POSTBOX);
  const mail = page.getByRole('article').filter({ hasText: 'board@council.example' });
  await expect(mail).toContainText('Is this how the counter does it?');
  await mail.getByRole('link', { name: /open\/C-7/ }).click();
  await expect(page.getByRole('textbox', { name: 'Title of C-7' })).toBeVisible();
});

test('what is mailed of the inbox is chosen, and the list of a query goes by mail', async ({ page }) => {
  await signIn(page, 'Rui M.', '/inbox');
  await page.getByRole('button', { name: 'What reaches you' }).click();
  const pace = page.getByRole('combobox', { name: 'Mailed: Changes of what you follow' });
  await pace.selectOption('once a day');
  await expectAccessible(page);
  await page.reload();
  await page.getByRole('button', { name: 'What reaches you' }).click();
  await expect(pace).toHaveValue('daily');
  await page.goto(`${PROJECT}/list/question?query=is:open`);
  await page.getByRole('button', { name: 'Send by mail' }).click();
  await page.getByRole('dialog').getByRole('checkbox', { name: 'Teresa L.' }).check();
  await page.getByRole('dialog').getByRole('button', { name: 'Send' }).click();
  await expect(async () => {
    await page.goto(POSTBOX);
    await expect(page.getByRole('heading', { name: /Rui M\.: \d+ questions of “is:open”/ })).toBeVisible({ timeout: 500 });
  }).toPass();
});
