import { expect, test, type Locator, type Page } from '@playwright/test';
import { PROJECT, discard, expectAccessible, saveVersion, signIn } from './helpers.ts';

const steps = (page: Page) => page.getByRole('list', { name: 'Steps', exact: true }).locator('> li');
const caseLine = (page: Page, id: string) => page.getByRole('list', { name: 'Cases' }).getByRole('link', { name: new RegExp(`^${id} `) });

/** Pulls a line of the left page to a place at the right, as a hand would; both are measured once they stand still. */
async function pull(page: Page, line: Locator, to: Locator, at: { x: number; y: number }): Promise<void> {
  await to.hover({ position: at });
  await line.hover({ position: { x: 80, y: 15 } });
  const [from, over] = [await line.boundingBox(), await to.boundingBox()];
  if (from === null || over === null) throw new Error('Both pages are seen');
  await page.mouse.down();
  await page.mouse.move(from.x + 100, from.y + 15, { steps: 4 });
  await page.mouse.move(over.x + at.x, over.y + at.y, { steps: 12 });
  // A hand lets go when it sees where the line would go.
  await expect(page.getByText(/was moved over droppable area after/)).toBeAttached();
  await page.mouse.up();
}

async function newCase(page: Page, title: string): Promise<string> {
  await page.goto(`${PROJECT}/cases`);
  await expect(page.getByRole('list', { name: 'Cases' }).getByRole('link').first()).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: /^Title of C-/ })).toBeFocused();
  await page.keyboard.type(title);
  await saveVersion(page, 2);
  return /C-\d+/.exec(page.url())?.[0] ?? '';
}

test('shared steps and cases are dragged among the steps, and a parameter is renamed in all that knows it', async ({ page }) => {
  await signIn(page, 'Rui M.');
  const id = await newCase(page, 'Dragged together');
  await page.getByRole('button', { name: 'Shared steps', exact: true }).click();
  await pull(page, page.getByRole('link', { name: /^S-2 / }), page.getByRole('button', { name: /Write the next step/ }), { x: 60, y: 2 });
  await expect(steps(page).first()).toContainText('Sign out');
  // The line of the version has come to rest.
  await expect(page.getByRole('status').filter({ hasText: 'kept as draft' })).toBeVisible();

  await page.getByRole('button', { name: 'Cases', exact: true }).click();
  await page.getByRole('combobox', { name: 'Filter the cases by a query' }).fill('C-2');
  // Found alone: until then it stands among the others.
  await expect(page.getByRole('list', { name: 'Cases' }).getByRole('link')).toHaveText([/^C-2/]);
  await pull(page, caseLine(page, 'C-2'), steps(page).first(), { x: 90, y: 3 });
  await expect(steps(page).first()).toContainText('Unknown meter is refused');
  await expect(steps(page).nth(1)).toContainText('Sign out');
  await saveVersion(page, 3);

  await page.goto(`${PROJECT}/cases/C-2`);
  const name = page.getByRole('textbox', { name: 'Name of the parameter meter' });
  await name.fill('water meter');
  await name.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Rename <meter> to <water meter>' });
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
  await expect(dialog).toContainText(id);
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Rename everywhere' }).click();
  await expect(page.getByText('is <water meter> now in 2 artefacts')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Action of step 1' })).toContainText('<water meter>');
});

test('cases are cloned with other words, selected, moved, merged into one with the rows of both, and read one after the other', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases/C-15');
  const title = await page.getByRole('textbox', { name: 'Title of C-15' }).inputValue();
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('button', { name: 'Clone' }).click();
  const clone = page.getByRole('dialog');
  await clone.getByRole('textbox', { name: 'Word to replace, clone 1, 1' }).fill(title.split(' ')[0] ?? '');
  await clone.getByRole('textbox', { name: 'What stands in its place, clone 1, 1' }).fill('Counter');
  await expect(clone.getByRole('region', { name: 'What is made' })).toContainText('Counter');
  await clone.getByRole('button', { name: 'Make 1 case' }).click();
  await expect(page.getByText('cloned from C-15 v')).toBeVisible();
  const id = /C-\d+/.exec(page.url())?.[0] ?? '';

  await page.getByRole('combobox', { name: 'Filter the cases by a query' }).fill('Counter');
  await caseLine(page, id).focus();
  await page.keyboard.press('Space');
  const bar = page.getByRole('toolbar', { name: 'Selected cases' });
  await bar.getByRole('button', { name: 'Move to module' }).click();
  await page.getByRole('combobox', { name: 'Module' }).or(page.getByRole('textbox', { name: 'Module', exact: true })).last().fill('At the counter');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByRole('heading', { name: /At the counter 1 case/ })).toBeVisible();

  // One row of the clone is changed: merged, only that one is new.
  await page.goto(`${PROJECT}/cases/${id}`);
  const cell = page.getByRole('gridcell').filter({ hasText: /\S/ }).nth(1);
  await cell.click();
  await page.keyboard.type('7');
  await page.keyboard.press('Enter');
  await saveVersion(page, 3);
  await page.goto(`${PROJECT}/cases/C-15`);
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('button', { name: 'Merge with another case' }).click();
  await page.getByRole('combobox', { name: 'The case that goes' }).fill(id);
  await page.getByRole('option', { name: new RegExp(id) }).click();
  await expect(page.getByRole('dialog')).toContainText('C-15 gains 1 row');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect(page.getByText(`${id} is part of C-15 now, and withdrawn`)).toBeVisible();

  await page.goto(`${PROJECT}/cases?query=module:readings`);
  await page.getByRole('checkbox', { name: 'Select C-3', exact: true }).check();
  await page.getByRole('checkbox', { name: 'Select C-5', exact: true }).click({ modifiers: ['Shift'] });
  await expect(bar).toContainText('3 selected');
  await expectAccessible(page);
  await bar.getByRole('link', { name: 'Read through' }).click();
  await expect(page.getByRole('heading', { name: '3 cases', exact: true })).toBeVisible();
  await expect(page.getByRole('img', { name: 'meter-dial.png' }).first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'one at a time' }).click();
  await expect(page.getByText('case 1 of 3 selected')).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByText('case 2 of 3 selected')).toBeVisible();
});

test('what is worth a look is mended with a click; cases that would wait for each other are refused; pinned users move on together', async ({ page }) => {
  await signIn(page, 'Inês V.');
  const id = await newCase(page, 'To be mended');
  await page.getByRole('button', { name: /Write the next step/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Open the form and enter 5');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Press Send and check that a receipt is printed');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'make it 2 steps' }).click();
  await expect(page.getByRole('textbox', { name: 'Action of step 2' })).toHaveText('Enter 5');
  await page.getByRole('button', { name: 'put it after ⇒' }).click();
  await expect(page.getByRole('textbox', { name: 'Expected result of step 3' })).toHaveText('A receipt is printed');
  await expect(page.getByRole('textbox', { name: 'Action of step 3' })).toHaveText('Press Send');
  await expect(page.getByText('No step says what is expected')).toHaveCount(0);

  await page.getByRole('button', { name: 'None – add' }).click();
  await page.getByRole('combobox', { name: 'A case that must have been executed before' }).fill('C-40');
  await page.getByRole('option', { name: /C-40/ }).click();
  await saveVersion(page, 3);
  await page.goto(`${PROJECT}/cases/C-40`);
  await page.getByRole('button', { name: 'add a case' }).click();
  await page.getByRole('combobox', { name: 'A case that must have been executed before' }).fill(id);
  await page.getByRole('option', { name: new RegExp(id) }).click();
  await page.keyboard.press('Control+s');
  await expect(page.getByText(`These cases would wait for each other: C-40 depends on ${id} depends on C-40`)).toBeVisible();
  await discard(page);

  // The demo pins one user to v1 of these shared steps.
  await page.goto(`${PROJECT}/shared/S-12`);
  const purpose = page.getByRole('textbox', { name: 'Purpose' });
  await purpose.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Kept by hand.');
  await saveVersion(page, 3);
  await page.getByRole('button', { name: 'Move to v3' }).click();
  await page.getByRole('button', { name: 'Move 1 user' }).click();
  await expect(page.getByText('pinned to an older version')).toHaveCount(0);
  await page.getByRole('complementary').getByRole('link', { name: 'Show graph', exact: true }).first().click();
  await expect(page.getByRole('button', { name: /^case, C-39,.*kept from a change by a pin/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^case, C-39,/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/cases\/C-39/);
});

test('a charter says what to explore; files are attached to a step and to a case, seen in place, and stay', async ({ page }) => {
  await signIn(page, 'Rui M.', '/cases/C-41');
  await expect(page.getByRole('textbox', { name: 'Ideas' })).toContainText('99 999 and then 0');
  await expectAccessible(page);
  await page.goto(`${PROJECT}/cases/C-5`);
  await steps(page).first().hover();
  await page.getByLabel('Files for step 1').setInputFiles('../demo/fonte-clara/meter-dial.png');
  const ofStep = page.getByRole('list', { name: 'Files of step 1' });
  await expect(ofStep.getByRole('img')).toHaveJSProperty('complete', true);
  await page.getByLabel('Files to attach').setInputFiles(['../demo/fonte-clara/api-document-1.2.pdf', '../demo/fonte-clara/readings-round-7.csv']);
  const ofCase = page.getByRole('list', { name: 'Attached files' });
  await expect(ofCase.getByRole('listitem')).toHaveCount(2);
  await page.keyboard.press('Control+s');
  await expect(page.getByText(/v\d+ · saved/)).toBeVisible();
  await page.reload();
  await expect(ofStep.getByRole('img')).toBeVisible();
  const saving = page.waitForEvent('download');
  await ofCase.getByRole('link', { name: /readings-round-7\.csv/ }).click();
  expect((await saving).suggestedFilename()).toBe('readings-round-7.csv');

  await ofCase.getByRole('button', { name: 'Open api-document-1.2.pdf' }).click();
  const pages = page.getByRole('dialog', { name: 'api-document-1.2.pdf' }).getByRole('group', { name: /^Pages of/ });
  await expect(pages.getByRole('img')).toHaveCount(2);
  // Drawn, with ink on it.
  await expect.poll(() => pages.getByRole('img', { name: 'Page 1' }).evaluate((canvas: HTMLCanvasElement) => canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data.some((byte, i) => i % 4 === 0 && byte < 100))).toBe(true);
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await page.getByLabel('Files to attach').setInputFiles({ name: 'not.png', mimeType: 'image/png', buffer: Buffer.from([0x4d, 0x5a, 0x90, 0]) });
  await expect(page.getByText('‘not.png’ is empty, or of a kind that is not kept here')).toBeVisible();
});
