import { readFile } from 'node:fs/promises';
import { expect, test, type Download, type Page } from '@playwright/test';
import { writeXlsx } from '@caderno/core/exchange';
import { PROJECT, expectAccessible, items, saveVersion, signIn } from './helpers.ts';

async function choose(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.getByLabel('File to import').setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });
}

const problems = (page: Page) => page.getByRole('list', { name: 'Problems in the file' }).getByRole('listitem');

const SHEET = [
  ['No', 'Caption', 'Words', 'Belongs to', 'Urgency'],
  ['WM-1', 'Water meter exchange', 'How meters are exchanged.', '', 'high'],
  ['WM-2', 'Exchange on a working day', 'A meter is exchanged quickly, on a working day from 8 to 16.', 'WM-1', 'high'],
  ['WM-2', 'Doubled', 'The same id again.', 'WM-1', 'high'],
  ['', 'Without an id', 'Nobody can find it again.', 'WM-1', 'low'],
  ['WM-3', 'Seal', 'A fitter puts a seal of 10 digits on the new meter.', 'WM-9', 'urgent!'],
];

test('from a faulty sheet to settled coverage', async ({ page }) => {
  await signIn(page, 'Rui M.', '/basis');

  await test.step('import an XLSX with faults, mend the mapping, import', async () => {
    await page.getByRole('link', { name: 'Import', exact: true }).click();
    await choose(page, 'meter exchange.xlsx', await writeXlsx('Meters', SHEET));
    await expect(page.getByText('meter exchange.xlsx · 5 requirements in it')).toBeVisible();
    // Title and text have names nobody could guess; something is the title all the same.
    await expect(page.getByText(/^\d added · 0 changed · 0 as they are/)).toBeVisible();
    for (const [column, target] of [['Caption', 'Title'], ['Words', 'Text'], ['No', 'Id in the source'], ['Belongs to', 'Id of the one above'], ['Urgency', 'Priority']] as const) {
      await page.getByRole('button', { name: new RegExp(`^${column} is:`) }).click();
      await page.getByRole('option', { name: target, exact: true }).click();
    }
    await expect(page.getByText('3 added · 0 changed · 0 as they are · 2 errors · 2 warnings')).toBeVisible();
    await expect(problems(page)).toHaveText([
      /error.*line 5.*No.*It has no id|error.*line 4.*The id “WM-2” stands in line 3 already/,
      /error.*line 4.*The id “WM-2” stands in line 3 already|error.*line 5/,
      /look at.*line 6, Urgency.*“urgent!” is no priority/,
      /look at.*line 6.*It stands below “WM-9”, which is not in the file/,
    ]);
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByText('Imported meter exchange: 3 added, 0 changed.')).toBeVisible();
    await expect(page.getByRole('textbox', { name: /^Title of R-/ })).toHaveValue('Water meter exchange');
  });

  await test.step('the same sheet again changes nothing; its mapping is remembered', async () => {
    await page.getByRole('link', { name: 'Import', exact: true }).click();
    await choose(page, 'meter exchange.xlsx', await writeXlsx('Meters', SHEET));
    await expect(page.getByText('matched as last time')).toBeVisible();
    await expect(page.getByText('0 added · 0 changed · 3 as they are')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
    await page.getByRole('button', { name: 'Back to the basis' }).click();
  });

  await test.step('read it critically: dismiss one mark, mend another', async () => {
    await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('working day');
    await page.getByRole('link', { name: /Exchange on a working day/ }).click();
    const marks = page.getByRole('list', { name: 'Weak wording' }).getByRole('listitem').filter({ hasNot: page.getByRole('list') });
    await expect(marks).toHaveCount(2);
    await expect(marks.nth(0)).toHaveAccessibleName('quickly: vague amount');
    await expect(marks.nth(1)).toHaveAccessibleName('8 to 16: number without unit');
    await marks.nth(1).getByRole('button', { name: 'dismiss' }).click();
    await page.getByLabel('Why “8 to 16” is fine').fill('Hours, as everywhere in the handbook');
    await page.keyboard.press('Enter');
    await expect(marks).toHaveCount(1);
    await page.getByRole('button', { name: 'Edit the text' }).click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('A meter is exchanged within one shift, on a working day from 8 to 16.');
    // Another sentence now: what was dismissed in the old one is asked again.
    await expect(marks).toHaveCount(1);
    await expect(marks.nth(0)).toHaveAccessibleName('8 to 16: number without unit');
    await page.keyboard.press('Escape');
    await saveVersion(page, 2);
  });

  await test.step('a condition and a case that shows it', async () => {
    await page.getByRole('link', { name: 'Mark conditions in its text' }).click();
    await page.getByRole('button', { name: 'Add one', exact: true }).click();
    await expect(page.getByRole('textbox', { name: /^Title of K-/ })).toBeFocused();
    await page.keyboard.type('Exchange is done in time');
    await saveVersion(page, 2);
    await page.getByRole('button', { name: 'Write cases' }).click();
    await page.getByRole('button', { name: 'Begin with an empty case' }).click();
    await page.getByRole('button', { name: /Write the next step/ }).click();
    await page.keyboard.type('Order an exchange');
    await page.keyboard.press('Tab');
    await page.keyboard.type('It is done within one shift');
    await page.getByRole('button', { name: 'Choose the step that shows it' }).click();
    await page.getByRole('checkbox', { name: /It is done within one shift/ }).click();
    await page.getByRole('button', { name: 'Done' }).click();
    await saveVersion(page, 2);
    await page.getByRole('link', { name: /^K-\d+ Exchange is done in time$/ }).first().click();
    await expect(items(page)).toContainText('shown:');
  });

  await test.step('ask, and see what waits', async () => {
    await page.goto(`${PROJECT}/basis`);
    await page.getByRole('combobox', { name: 'Filter the requirements by a query' }).fill('working day');
    await page.getByRole('list', { name: 'Outline of requirements' }).getByRole('link', { name: /Exchange on a working day/ }).click();
    await page.getByRole('list', { name: 'Weak wording' }).getByRole('button', { name: 'ask' }).click();
    await expect(page.getByRole('textbox', { name: /^Title of Q-/ })).toBeFocused();
    await expect(page.getByRole('textbox', { name: /^Title of Q-/ })).toHaveValue('What does “8 to 16” mean?');
    await page.getByRole('checkbox', { name: 'all its conditions wait' }).check();
    await page.getByLabel('Asked of:').fill('Duarte P.');
    await saveVersion(page, 2);
    await expect(page.getByText('holds up 1 item')).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('answer it in the agenda by keyboard', async () => {
    await page.getByRole('link', { name: 'Agenda' }).click();
    const field = page.getByRole('listitem').filter({ hasText: 'What does “8 to 16” mean?' }).getByRole('textbox');
    await field.focus();
    await page.keyboard.type('From 08:00 to 16:00.');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('Answered by Rui M.:')).toBeVisible();
    await expect(page.locator('textarea:focus')).toHaveAttribute('aria-label', /^Answer to Q-[1-7]$/);
    await page.getByRole('listitem').filter({ hasText: 'What does “8 to 16” mean?' }).getByRole('link').click();
  });

  await test.step('the answer becomes a change of the requirement, and links turn suspect', async () => {
    await page.getByRole('button', { name: 'Write it into the requirement' }).click();
    const text = page.getByLabel(/^Text of R-\d+, in Markdown/);
    await expect(text).toHaveValue(/from 8 to 16\. From 08:00 to 16:00\.$/);
    await text.fill('A meter is exchanged within one shift, on a working day from 08:00 to 16:00.');
    await page.getByRole('button', { name: /^Save v3 of R-/ }).click();
    await expect(page.getByText('Written into', { exact: true })).toBeVisible();
    await expect(page.getByRole('link', { name: /^R-\d+ v3$/ })).toBeVisible();
    await page.getByRole('link', { name: /suspect links?$/ }).click();
    await page.getByRole('button', { name: /Exchange is done in time/ }).click();
    await expect(page.getByRole('region', { name: 'What changed' })).toContainText('08:00');
    await expectAccessible(page);
  });

  await test.step('settle, and coverage is as it was', async () => {
    const requirement = page.getByRole('list', { name: 'Requirements and their coverage items' }).getByRole('listitem').filter({ hasText: 'Exchange on a working day' });
    await page.getByRole('button', { name: 'Still right' }).click();
    await expect(page.getByText('The link is still right.')).toBeVisible();
    await page.goto(`${PROJECT}/coverage`);
    await page.getByRole('list', { name: 'Requirements and their coverage items' }).evaluate((wall) => wall.scrollTo(0, wall.scrollHeight));
    await expect(requirement).toContainText('100 %');
  });

  await test.step('the whole import is undone by one key', async () => {
    await page.goto(`${PROJECT}/journal`);
    await page.getByRole('button', { name: 'Undo: Import of meter exchange' }).click();
    await expect(page.getByText(/is used by K-\d+/)).toBeVisible();
  });
});

test('both the file and the project changed: both are shown, and one chooses', async ({ page }) => {
  await signIn(page, 'Rui M.', '/import');
  const csv = (text: string) => Buffer.from(`id,title,text\nCF-1,Counter fee,${text}\n`);
  await choose(page, 'fees.csv', csv('The fee is 2 euros.'));
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('button', { name: 'Edit the text' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('The fee is 3 euros.');
  await saveVersion(page, 2);
  await page.goto(`${PROJECT}/import`);
  await choose(page, 'fees.csv', csv('The fee is 4 euros.'));
  await expect(page.getByRole('group', { name: /^Text of R-\d+, changed on both sides/ })).toContainText('here');
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  await page.getByRole('radio', { name: /in the file/ }).click();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText('Imported fees: 0 added, 1 changed.')).toBeVisible();
  // The preview told the text too: the key is meant for the requirement’s page.
  await expect(page).toHaveURL(/\/R-\d+$/);
  await expect(page.getByText('The fee is 4 euros.')).toBeVisible();
  await page.locator('main').focus();
  await page.keyboard.press('Shift+U');
  await expect(page.getByRole('dialog', { name: 'Undo your last command?' })).toContainText('Import of fees');
  await page.getByRole('button', { name: 'Undo it' }).click();
  await expect(page.getByText(/^Undone: Import of fees/)).toBeVisible();
  await expect(page.getByText('The fee is 3 euros.')).toBeVisible();
});

test('stories come in from the tracker, and a link leads back', async ({ page }) => {
  await signIn(page, 'Inês V.', '/basis');
  await expect(page.getByText('The story tracker has 1 new story and 1 changed story.')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('link', { name: 'Look at them' }).click();
  await page.getByRole('button', { name: 'Bring in its stories' }).click();
  await expect(page.getByText('1 added · 1 changed · 3 as they are')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('region', { name: 'Changed requirements' })).toContainText('twice');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText(/^Imported Story tracker: 1 added, 1 changed\.$/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: /^Title of R-/ })).toHaveValue('As a reader I take readings without a network');
  await expect(page.getByText(/The story tracker has/)).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Open it there' })).toHaveAttribute('href', /\/projects\/fonte-clara\/stories\/FC-105$/);
  await page.goto(`${PROJECT}/conditions/R-9/K-19`);
  await page.getByRole('button', { name: 'link a defect' }).click();
  await page.getByLabel('Defect, by key or words').fill('rounds');
  await page.getByRole('button', { name: /FC-B15/ }).click();
  await expect(page.getByRole('list', { name: 'Defects' })).toContainText('Bill rounds each band');
});

test('a requirement is split, and merged again', async ({ page }) => {
  await signIn(page, 'Inês V.', '/basis/R-12');
  await page.getByRole('button', { name: 'Split', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Who goes along' })).toContainText('K-26');
  await page.getByLabel('Title of part 1').fill('Fixed charge is shared');
  await page.getByLabel('Title of part 2').fill('Shares are percentages');
  await page.getByRole('button', { name: 'Split into 2' }).click();
  await expect(page.getByText('R-12 is split.')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Title of R-12' })).toHaveValue('Fixed charge is shared');
  const part = page.getByRole('link', { name: /Shares are percentages/ });
  await part.click();
  await expect(page.getByText('split from')).toBeVisible();
  await expect(page.getByRole('complementary').getByText('Share as a percentage')).toBeVisible();
  await page.getByRole('link', { name: /Fixed charge is shared/ }).first().click();
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await page.getByLabel('Requirement to merge in, by id or words').fill('shares are');
  await page.getByRole('button', { name: /Shares are percentages/ }).click();
  await expect(page.getByText(/2 conditions, 0 questions come along/)).toBeVisible();
  await page.getByRole('button', { name: 'Merge 2 requirements into one' }).click();
  await expect(page.getByText('Merged into R-12.')).toBeVisible();
  await expect(page.getByRole('complementary').getByText('Share as a percentage')).toBeVisible();
});

test('the basis is saved as a file that reads back as it is', async ({ page }) => {
  await signIn(page, 'Inês V.', '/basis');
  const save = async (format: RegExp, ...beside: readonly string[]): Promise<Download> => {
    await page.getByRole('button', { name: 'Export' }).click();
    const dialog = page.getByRole('dialog', { name: 'Export the requirements' });
    await dialog.getByRole('radio', { name: format }).check();
    for (const name of beside) await dialog.getByRole('checkbox', { name }).check();
    const [download] = await Promise.all([page.waitForEvent('download'), dialog.getByRole('button', { name: 'Save the file' }).click()]);
    await expect(dialog).toBeHidden();
    return download;
  };
  const xlsx = await save(/^XLSX/);
  expect(xlsx.suggestedFilename()).toBe('fonte-clara-basis.xlsx');
  const bytes = await readFile(await xlsx.path());
  const figures = await readFile(await (await save(/^CSV/, 'conditions and coverage beside each requirement')).path(), 'utf8');
  expect(figures).toContain('K-4 Reading value');
  await page.getByRole('link', { name: 'Import', exact: true }).click();
  await choose(page, 'fonte-clara-basis.xlsx', bytes);
  await expect(page.getByText(/^0 added · 0 changed · \d+ as they are$/)).toBeVisible();
  await page.getByRole('button', { name: 'Another file' }).click();
  await choose(page, 'with figures.csv', Buffer.from(figures));
  await expect(page.getByText(/^0 added · 0 changed · \d+ as they are$/)).toBeVisible();
});
