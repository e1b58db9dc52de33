import { expect, test } from '@playwright/test';
import { expectAccessible, saveVersion, signIn } from './helpers.ts';

const THERE = '/zona-alta';

test('a module is carried to an empty project, once however often, and what was improved there comes home', async ({ page }, info) => {
  await signIn(page, 'Teresa L.', '/list/case?query=module:%22Meter%20readings%22');
  const carry = async (name: string): Promise<string> => {
    await page.locator('[data-line] a').first().focus();
    await page.keyboard.press('Control+a');
    await page.getByRole('button', { name: 'Carry to another project' }).click();
    await expect(page.getByRole('status', { name: 'What comes along' })).toContainText('requirements');
    await expectAccessible(page);
    const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
    const path = info.outputPath(name);
    await download.saveAs(path);
    return path;
  };
  const file = await carry('first.json');

  await page.goto('/new-project');
  await expect(page.getByLabel('Name')).toBeFocused();
  await page.keyboard.type('Zona alta');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/zona-alta\/basis$/);
  await page.getByRole('link', { name: 'Import', exact: true }).click();
  await page.getByRole('link', { name: 'Bring in its design file' }).click();
  // The page before takes files, too.
  await expect(page.getByRole('heading', { name: 'Bring in a part of another project' })).toBeVisible();
  await page.getByLabel('File to import').setInputFiles(file);
  await expect(page.getByRole('row', { name: /^cases/i })).toContainText('0');
  await expect(page.getByText('These stay out')).toContainText('who is not in this project');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText(/Imported Fonte Clara/)).toBeVisible();
  await expect(page).toHaveURL(/\/zona-alta\//);

  await test.step('brought again it has nothing to do', async () => {
    await page.goto(`${THERE}/import-design`);
    await page.getByLabel('File to import').setInputFiles(file);
    await expect(page.getByText('Nothing to import')).toBeVisible();
  });

  await test.step('the case shows there what it showed, and is improved', async () => {
    await page.goto(`${THERE}/cases`);
    await page.getByRole('link', { name: /Dial rolls over past/ }).click();
    await expect(page.getByText(/of \d/).first()).toBeVisible();
    await page.getByRole('textbox', { name: /^Title of C-/ }).fill('Dial rolls over at its end');
    await saveVersion(page, 2);
  });

  await test.step('it comes home as a change of the case that it was', async () => {
    await page.goto(`${THERE}/list/case?query=rolls`);
    const back = await carry('back.json');
    await page.goto('/fonte-clara/import-design');
    await page.getByLabel('File to import').setInputFiles(back);
    await expect(page.getByText(/^0 added · 1 changed/)).toBeVisible();
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText(/Imported Zona alta: 0 added, 1 changed/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('The import is undone.')).toBeVisible();
  });
});
