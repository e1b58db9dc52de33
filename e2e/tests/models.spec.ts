import { expect, test, type Page } from '@playwright/test';
import { PROJECT, expectAccessible, items, saveVersion, signIn } from './helpers.ts';

const shown = (page: Page) => items(page).filter({ hasText: 'shown:' });

/** A new plain condition on a requirement of the demo, turned into a model. */
async function newModel(page: Page, title: string, model: string): Promise<void> {
  await page.goto(`${PROJECT}/conditions/R-42`);
  await page.getByRole('button', { name: 'Add one', exact: true }).click();
  await expect(page.getByRole('textbox', { name: /^Title of K-/ })).toBeFocused();
  await page.keyboard.type(title);
  await page.getByRole('button', { name: /^Model:/ }).click();
  await page.getByRole('option', { name: model }).click();
}

test('a decision table by keyboard, its gap, and cases for all of it', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await newModel(page, 'Who may leave without notice', 'decision table');
  const grid = page.getByRole('grid', { name: 'Decision table' });
  const head = grid.getByRole('columnheader');

  await test.step('values by their first letter, rules copied and added, what is missing by one key', async () => {
    await expect(page.getByText('Every combination is in a rule')).toBeVisible();
    await grid.getByRole('gridcell').first().click();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.type('y');
    await expect(page.getByText('1 combination is in no rule, as first condition yes, second condition no.')).toBeVisible();
    await page.keyboard.press('Control+d');
    await expect(head).toHaveCount(4);
    await expect(page.getByText(/Rule 2 adds nothing/)).toBeVisible();
    await page.keyboard.press('Control+Backspace');
    await expect(head).toHaveCount(3);
    await page.keyboard.press('Alt+m');
    await expect(page.getByText('Every combination is in a rule')).toBeVisible();
    await expect(head).toHaveCount(4);
  });

  await test.step('actions, a contradiction at its rules, an impossible rule, the smallest table', async () => {
    await grid.locator('[data-cell="2 0"]').click();
    await page.keyboard.type('refused');
    await page.keyboard.press('Enter');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.type('granted');
    await page.keyboard.press('Enter');
    await grid.locator('[data-cell="0 1"]').click();
    await page.keyboard.press('-');
    await expect(page.getByText(/Rule 1 and rule 2 do different things where both hold: first condition yes, second condition yes/)).toBeVisible();
    await page.keyboard.type('n');
    await grid.locator('[data-cell="2 2"]').click();
    await page.keyboard.type('granted');
    await page.keyboard.press('Enter');
    await grid.locator('[data-cell="1 1"]').click();
    await page.keyboard.type('n');
    await grid.locator('[data-cell="3 0"]').click();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('x');
    await expect(grid.locator('[data-cell="3 1"]')).toHaveText('✕');
    await page.keyboard.press('x');
    await grid.locator('[data-cell="1 1"]').click();
    await page.keyboard.press('-');
    await page.keyboard.press('Alt+m');
    await page.getByRole('button', { name: 'the smallest table that does the same' }).click();
    await expect(page.getByRole('dialog')).toContainText(/No table with fewer rules does the same|instead of/);
    await page.keyboard.press('Escape');
    await expectAccessible(page);
    await saveVersion(page, 2);
  });

  await test.step('one command writes a case with a row for each rule', async () => {
    await expect(items(page)).toHaveCount(3);
    await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: /^Write cases/ }).click();
    await expect(page.getByRole('table', { name: 'Rows to be added' }).getByRole('row')).toHaveCount(4);
    await expect(page.getByText(/^Still missing in \d rows?/)).toBeVisible();
    await page.getByLabel('Expected result of step 1').fill('It says which holds');
    await expect(page.getByText(/^Still missing/)).toHaveCount(0);
    await page.getByLabel('Name of the row').first().fill('refused at once');
    await page.getByRole('button', { name: 'Write 1 case' }).click();
    await expect(shown(page)).toHaveCount(3);
    await expect(items(page).first()).toContainText('refused at once');
    await items(page).first().getByRole('button', { name: /^Why/ }).click();
    await expect(page.getByRole('dialog')).toContainText('<first condition> carries first condition and is “yes”');
    await page.keyboard.press('Escape');
  });

  await test.step('the journal takes it back as one', async () => {
    await page.goto(`${PROJECT}/journal`);
    const entry = page.getByRole('listitem').filter({ hasText: /Cases for K-\d+ Who may leave without notice/, hasNotText: 'undid' }).first();
    await entry.getByRole('button', { name: /^Undo/ }).click();
    await expect(entry).toContainText('undone');
  });
});

test('a state diagram: typed as a table, checked, its paths become cases', async ({ page }) => {
  await signIn(page, 'Rui M.');
  await newModel(page, 'Life of an appeal', 'state transitions');
  const table = page.getByRole('table', { name: 'Transitions' });
  const type = async (cells: readonly string[]): Promise<void> => {
    await table.getByLabel('from of the next transition').fill(cells[0] ?? '');
    await page.keyboard.press('Tab');
    for (const cell of cells.slice(1)) {
      await page.keyboard.type(cell);
      await page.keyboard.press('Tab');
    }
  };
  await type(['Second state', 'taken back', '', 'First state', '']);
  await type(['Second state', 'decided', '', 'Settled', 'the member is told']);
  await expect(page.getByRole('img', { name: 'State Settled' })).toBeVisible();
  await expect(page.getByText('Nothing leads out of Settled, and it is not marked as an end.')).toBeVisible();
  await page.getByRole('listitem').filter({ has: page.getByLabel('Settled is the initial state') }).getByRole('checkbox', { name: 'end' }).check();
  await expect(page.getByText('Nothing leads out of Settled')).toHaveCount(0);
  await page.getByRole('button', { name: /^Level:/ }).click();
  await page.getByRole('option', { name: /1-switch/ }).click();
  await expect(items(page)).toHaveCount(3 + 6);
  const state = page.getByRole('img', { name: 'State Settled, final' });
  const before = await state.boundingBox();
  await state.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect.poll(async () => (await state.boundingBox())?.y).toBeGreaterThan(before?.y ?? 0);
  await expectAccessible(page);
  for (const kind of ['SVG', 'PNG']) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: `save as ${kind}` }).click();
    expect((await download).suggestedFilename()).toBe(`Life of an appeal.${kind.toLowerCase()}`);
  }
  await saveVersion(page, 2);
  await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: /^Write cases/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('region', { name: 'Case 1', exact: true }).getByLabel('Title of the case')).toHaveValue('Life of an appeal: First state → Second state → First state → Second state → Settled');
  await dialog.getByRole('button', { name: 'Write 7 cases' }).click();
  await expect(shown(page)).toHaveCount(9);
  await page.getByRole('link', { name: /^C-\d+$/ }).first().click();
  await page.getByRole('button', { name: 'Steps that are events' }).click();
  await expect(page.getByRole('dialog')).toContainText('→ Settled');
});

test('a combination with a constraint: completed as one types, explained, its rows shown to the last pair', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await newModel(page, 'Ways of leaving', 'combination');
  await page.getByRole('button', { name: 'Add a factor' }).click();
  await expect(items(page)).toHaveCount(12);
  await page.getByRole('button', { name: 'add a constraint' }).click();
  await page.keyboard.type('if first factor = one then thrid');
  await expect(page.getByText('No factor is called “thrid”.')).toBeVisible();
  for (let i = 0; i < 'thrid'.length; i += 1) await page.keyboard.press('Backspace');
  await page.keyboard.type('fac');
  await page.getByRole('option', { name: 'factor 3' }).click();
  await page.keyboard.type('= other');
  await page.keyboard.press('Escape');
  await expect(items(page)).toHaveCount(11);
  await page.getByRole('button', { name: '1 combination cannot occur' }).click();
  await expect(page.getByText('first factor one × factor 3 one constraint 1')).toBeVisible();
  await expectAccessible(page);
  await saveVersion(page, 2);
  await page.getByRole('region', { name: 'Condition', exact: true }).getByRole('button', { name: /^Write cases/ }).click();
  await expect(page.getByRole('status').filter({ hasText: /cannot be fewer|so far/ })).toBeVisible();
  await page.getByRole('button', { name: /stop looking/ }).click({ timeout: 2000 }).catch(() => undefined);
  await page.getByLabel('Expected result of step 1').fill('It goes that way');
  await page.getByRole('button', { name: 'Write 1 case' }).click();
  await expect(shown(page)).toHaveCount(11);
  await expect(page.getByText('11 coverage items · 11 of 11 shown · 100 %')).toBeVisible();
  await page.getByRole('button', { name: /^Strength:/ }).click();
  await page.getByRole('option', { name: 'everything with everything' }).click();
  await expect(items(page)).toHaveCount(6);
});

test('a checklist is pasted, nested, ordered, labelled, merged and moved; a technique is changed knowing what goes', async ({ page }) => {
  await signIn(page, 'Inês V.', '/conditions/R-41');
  await page.getByRole('button', { name: 'Paste a checklist' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('Receipt of an appeal\n  - names the member\n  - ! without a date\nDecision in writing');
  await page.getByRole('button', { name: 'Make 4 conditions' }).click();
  const list = page.getByRole('list', { name: 'Conditions' }).getByRole('listitem');
  const titles = async () => (await list.allTextContents()).map((t) => /(Receipt|names|without|Decision)/.exec(t)?.[1]).filter(Boolean);
  await expect.poll(titles).toEqual(['Receipt', 'names', 'without', 'Decision']);
  await expect(list.filter({ hasText: 'without a date' })).toContainText('negative');
  await list.filter({ hasText: 'without a date' }).getByRole('link').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(titles).toEqual(['Receipt', 'without', 'names', 'Decision']);
  for (const name of ['names the member', 'without a date']) await list.filter({ hasText: name }).getByRole('checkbox').check();
  await page.getByRole('toolbar', { name: 'Selected conditions' }).getByRole('button', { name: 'smoke' }).click();
  await expect(list.filter({ hasText: 'names the member' })).toContainText('smoke');
  await expect(page.getByRole('toolbar', { name: 'Selected conditions' })).toBeHidden();
  for (const name of ['names the member', 'without a date']) await list.filter({ hasText: name }).getByRole('checkbox').check();
  await page.getByRole('toolbar', { name: 'Selected conditions' }).getByRole('button', { name: 'merge' }).click();
  await page.getByRole('button', { name: /^Merge into K-/ }).click();
  await expect.poll(titles).toHaveLength(3);
  await list.filter({ hasText: 'Decision in writing' }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'move to …' }).click();
  await page.getByRole('combobox', { name: 'Requirement' }).fill('Leaving');
  await page.getByRole('option', { name: /Leaving/ }).click();
  await expect.poll(titles).toHaveLength(2);
  await page.goto(`${PROJECT}/condition/K-40`);
  await page.getByRole('button', { name: /^Model:/ }).click();
  await page.getByRole('option', { name: 'plain', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('of those that go');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(items(page)).toHaveCount(3);
});
