import { readFile } from 'node:fs/promises';
import { expect, test, type Download, type Page } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { UNASKED, expectAccessible, openAs } from './helpers.ts';

/** Saves the hand-off, or somebody’s part of it, in a form. */
async function saved(page: Page, button: string, form: RegExp): Promise<Download> {
  await page.getByRole('button', { name: button, exact: true }).click();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: form }).click()]);
  return file;
}

test('a suite is looked through, given out and handed off; what is saved works without a network, and edits touch nothing of it', async ({ browser }) => {
  const ines = await openAs(browser, 'Inês V.', '/suites/U-1');
  const rui = await openAs(browser, 'Rui M.', '/hand-offs');
  await test.step('what is doubtful stands at each case; people are chosen by keyboard', async () => {
    await expect(rui.getByRole('heading', { name: 'Smoke of build 41' })).toBeVisible();
    await ines.getByRole('link', { name: 'Hand it off' }).press('Enter');
    await expect(ines.getByRole('group', { name: 'Doubts' }).getByRole('button', { name: /\d+ not agreed/ })).toBeVisible();
    await ines.getByRole('textbox', { name: 'Name' }).fill('Smoke of build 42');
    await ines.getByRole('checkbox', { name: 'Rui M.' }).press('Space');
    await ines.getByRole('textbox', { name: 'Somebody else' }).fill('Tester at the counter');
    await ines.keyboard.press('Enter');
    await expect(ines.getByRole('table', { name: 'Who does how much' }).getByRole('row', { name: /Tester at the counter/ })).toBeVisible();
    await ines.getByRole('checkbox', { name: 'Hand off C-25' }).press('Space');
    await expectAccessible(ines);
    // Whoever goes to mend something finds the form as it was.
    await ines.getByRole('link', { name: 'C-21' }).click();
    await expect(ines.getByRole('textbox', { name: 'Title of C-21' })).toBeVisible();
    await ines.goBack();
    await expect(ines.getByRole('textbox', { name: 'Name' })).toHaveValue('Smoke of build 42');
    await expect(ines.getByRole('checkbox', { name: 'Hand off C-25' })).not.toBeChecked();
  });
  await test.step('handed off, others see it at once', async () => {
    await ines.getByRole('button', { name: /^Hand off \d+ instances$/ }).press('Enter');
    await expect(ines.getByRole('heading', { name: 'Smoke of build 42' })).toBeVisible();
    await expectAccessible(ines);
    await expect(rui.getByRole('link', { name: /Smoke of build 42/ })).toBeVisible(UNASKED);
  });
  await test.step('the page is ticked and remarked without a network, and what was noted is saved', async () => {
    const file = await saved(ines, 'Save as a file', /Page to tick/);
    const path = test.info().outputPath(file.suggestedFilename());
    await file.saveAs(path);
    const context = await browser.newContext({ offline: true });
    const page = await context.newPage();
    await page.goto(`file://${path}`);
    const article = page.locator('article[data-key^="C-3"]').first();
    await expect(article).toBeVisible();
    // The picture of a step is in the file itself.
    expect(await article.locator('img').first().evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
    await expect(page.locator('article[data-key^="C-25"]')).toHaveCount(0);
    await page.getByLabel('Your name').fill('A tester');
    await article.locator('li .done').first().check();
    await article.locator('li .remark').nth(1).click();
    await page.keyboard.type('The dial is <b>behind</b> the gate');
    await article.locator('.minutes').fill('9');
    await expect(page.getByRole('status')).toHaveText(/^1 of \d+ steps done$/);
    await page.reload();
    await expect(article.getByRole('textbox', { name: 'Remark' })).toHaveValue('The dial is <b>behind</b> the gate');
    await expectAccessible(page);
    const [notes] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save what I noted' }).click()]);
    const key = await article.getAttribute('data-key');
    expect(JSON.parse(await readFile(await notes.path(), 'utf8'))).toMatchObject({
      format: 'caderno-hand-off-notes', project: 'fonte-clara', by: 'A tester',
      notes: expect.arrayContaining([{ instance: key, step: 1, done: true, remark: '', minutes: '' }, { instance: key, step: 2, done: false, remark: 'The dial is <b>behind</b> the gate', minutes: '' }, { instance: key, step: null, done: false, remark: '', minutes: '9' }]),
    });
    await notes.saveAs(test.info().outputPath('notes.json'));
    await context.close();
  });
  await test.step('what was noted comes back to its step, and a sheet with a changed text as a change that is offered', async () => {
    await ines.getByLabel('File that came back').setInputFiles(test.info().outputPath('notes.json'));
    const dialog = ines.getByRole('dialog', { name: /^What came back of H-\d+, from A tester$/ });
    await expect(dialog.getByRole('list', { name: 'What came back' })).toContainText('The dial is <b>behind</b> the gate');
    await expectAccessible(ines);
    await dialog.getByRole('button', { name: 'Put 2 remarks there' }).press('Enter');
    await expect(dialog).toBeHidden();
    const csv = await readFile(await (await saved(ines, 'Save as a file', /CSV/)).path(), 'utf8');
    const rows: string[][] = parse(csv, { bom: true });
    const [head = []] = rows;
    const row = rows.find((r) => r[head.indexOf('instance')]?.startsWith('C-21') === true && r[head.indexOf('action')]?.startsWith('[') === false) ?? [];
    const sheet = stringify([head, row.map((cell, i) => (i === head.indexOf('action') ? `${cell} without haste` : cell))]);
    await ines.getByLabel('File that came back').setInputFiles({ name: 'back.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) });
    await expect(ines.getByRole('dialog')).toContainText('without haste');
    await ines.getByRole('button', { name: 'Put 1 remark there' }).press('Enter');
    await expect(ines.getByRole('dialog')).toBeHidden();
  });
  await test.step('what is edited later is newer by now, and stays out of its files', async () => {
    const part = async (): Promise<string> => readFile(await (await saved(ines, 'Save the part of Rui M.', /CSV/)).path(), 'utf8');
    const before = await part();
    await rui.goto('/fonte-clara/cases/C-21');
    await rui.getByRole('textbox', { name: /^Action of step/ }).first().click();
    await rui.keyboard.press('End');
    await rui.keyboard.type(' once more');
    await rui.keyboard.press('Control+s');
    await expect(ines.getByRole('region', { name: 'Newer by now' }).getByRole('link', { name: 'C-21' })).toBeVisible(UNASKED);
    const after = await part();
    expect(after).toBe(before);
    await rui.goto('/fonte-clara/remarks');
    await expect(rui.getByRole('main')).toContainText('without haste');
    await expect(rui.getByRole('main')).toContainText('The dial is <b>behind</b> the gate');
    expect([before.includes('once more'), before.includes('Tester at the counter'), before.includes('Rui M.')]).toEqual([false, false, true]);
  });
  await ines.context().close();
  await rui.context().close();
});

test('by keyboard each who executes is told of their own part by mail', async ({ browser }) => {
  const ines = await openAs(browser, 'Inês V.', '/hand-offs/1');
  await ines.getByRole('button', { name: 'tell each by mail' }).press('Enter');
  const dialog = ines.getByRole('dialog', { name: 'Tell each by mail' });
  const who = dialog.getByRole('list', { name: 'Who is told' }).getByRole('listitem');
  await expect(who.filter({ hasText: 'at their address' })).toHaveCount(2);
  await dialog.getByRole('checkbox', { name: 'Olga S.' }).press('Space');
  await dialog.getByLabel('Note').fill('Begin with the readings.');
  await expectAccessible(ines);
  await dialog.getByRole('button', { name: 'Send 1 mail' }).press('Enter');
  await expect(who.filter({ hasText: 'Rui M.' })).toContainText('on the way');
  await expect(who.filter({ hasText: 'Olga S.' })).not.toContainText('on the way');
  await dialog.getByRole('link', { name: 'Mails you sent' }).press('Enter');
  await expect(ines.getByText(/H-1 .*, the part of Rui M\./).first()).toBeVisible();
});
