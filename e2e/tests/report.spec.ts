import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

test('a report from the coverage to its files by keyboard: held against a baseline, said in own words, on A4', async ({ page }) => {
  await signIn(page, 'Olga S.', '/coverage');
  const link = page.getByRole('link', { name: 'Report', exact: true });
  await link.focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('article');
  await expect(sheet.getByRole('heading', { level: 2 })).toHaveText(/^Design coverage of Fonte Clara/);
  await expect(sheet.getByText(/held against B-2/)).toBeVisible();
  // The past is counted while one looks at it.
  await expect(sheet.getByRole('img', { name: /^The share that is shown/ })).toBeVisible();
  await expect(sheet.getByText(/not counted yet\.$/)).toHaveCount(0);
  await expectAccessible(page);

  const baseline = page.getByRole('button', { name: /^Held against/ });
  await baseline.focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(200);
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/since=1$/);
  await expect(sheet.getByRole('heading', { name: /^What changed since B-1/ })).toBeVisible();

  await page.getByLabel('What you say first').focus();
  await page.keyboard.type('The pilot <can> start.');
  await expect(sheet.getByText('The pilot <can> start.')).toBeVisible();
  await page.getByRole('button', { name: 'Save as a file' }).focus();
  await page.keyboard.press('Enter');
  await page.waitForTimeout(200);
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(file.suggestedFilename()).toBe('fonte-clara report.html');
  const path = await file.path();
  const shown = await sheet.getByRole('list', { name: 'Figures' }).getByRole('listitem').first().innerText();

  // One file, without a server: the same figures, nothing asked of anybody, nothing that runs.
  expect(await readFile(path, 'utf8')).not.toMatch(/<script|https?:/);
  const alone = await page.context().newPage();
  await alone.setContent(await readFile(path, 'utf8'));
  await expect(alone.getByText('The pilot <can> start.')).toBeVisible();
  await expect(alone.getByRole('listitem').first()).toHaveText(new RegExp(`^${shown.split(/\s*\n/)[0]!}`));
  await expect(alone.getByRole('img', { name: /^The share that is shown/ })).toBeVisible();
  await alone.close();

  // On paper the report alone, on one to three pages.
  const pages = (await page.pdf({ preferCSSPageSize: true })).toString('latin1').match(/\/Type\s*\/Page\b/g)?.length ?? 0;
  expect(pages).toBeGreaterThan(0);
  expect(pages).toBeLessThan(4);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByLabel('What you say first')).toBeHidden();
});

test('a workbook and Markdown say the same; what it names is a click away', async ({ page }) => {
  await signIn(page, 'Inês V.', '/report?since=none');
  const sheet = page.getByRole('article');
  await expect(sheet).toBeVisible();
  const save = async (name: RegExp): Promise<Buffer> => {
    await page.getByRole('button', { name: 'Save as a file' }).click();
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name }).click()]);
    return readFile(await file.path());
  };
  expect((await save(/XLSX/)).subarray(0, 2).toString()).toBe('PK');
  const text = (await save(/Markdown/)).toString();
  const worst = sheet.getByRole('table', { name: 'Gaps' }).getByRole('link').first();
  const title = await worst.innerText();
  expect(text).toContain(`| ${title}`);
  await worst.click();
  await expect(page).toHaveURL(new RegExp(`/basis/${title.split(' ')[0]!}$`));
});
