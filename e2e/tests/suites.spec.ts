import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, openAs } from './helpers.ts';

const figures = (page: Page) => page.getByRole('list', { name: 'Figures of the suite' });
const line = (page: Page, words: string | RegExp) => page.getByRole('list', { name: 'Members' }).getByRole('listitem').filter({ hasText: words });

/** Finds a case or scenario by words and puts it in. */
async function pick(page: Page, words: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Add a case or scenario' }).fill(words);
  await expect(page.getByRole('option').first()).toContainText(words);
  await page.waitForTimeout(200);
  await page.keyboard.press('Enter');
  await expect(line(page, words)).toBeVisible();
}

test('a suite grows by hand, by a rule and by what it misses; it says at once what that comes to, and others see it', async ({ browser }) => {
  const ines = await openAs(browser, 'Inês V.', '/suites');
  await ines.getByRole('button', { name: 'New', exact: true }).click();
  const title = ines.getByRole('textbox', { name: /^Title of U-/ });
  await expect(title).toBeFocused();
  await ines.keyboard.type('Before the pilot');
  const id = (await title.getAttribute('aria-label'))?.slice('Title of '.length) ?? '';

  await test.step('picked by hand, in parts; the figures follow', async () => {
    await pick(ines, 'Who may enter a reading');
    await expect(figures(ines)).toContainText('instances of 1 case');
    await ines.getByRole('button', { name: 'New part' }).click();
    await ines.keyboard.type('Bills');
    await pick(ines, 'Half a cent on the whole bill');
    await pick(ines, 'The tariff holds from the next bill');
    await expect(figures(ines)).toContainText('of 2 cases, 1 scenario');
    await expect(ines.getByText('3 members, 1 part')).toBeVisible();
    await expectAccessible(ines);
  });

  await test.step('by keyboard a line goes over the one above it, out of its part, and away', async () => {
    await line(ines, 'The tariff holds').getByRole('link').focus();
    await ines.keyboard.press('Alt+ArrowUp');
    await expect(ines.getByRole('list', { name: 'Members' }).getByRole('listitem').nth(2)).toContainText('The tariff holds');
    await expect(line(ines, 'The tariff holds').getByRole('link')).toBeFocused();
    await ines.keyboard.press('ArrowUp');
    await expect(ines.getByRole('textbox', { name: 'Heading of the part' })).toBeFocused();
    await ines.keyboard.press('ArrowDown');
    await ines.keyboard.press('Delete');
    await expect(line(ines, 'The tariff holds')).toHaveCount(0);
    await expect(figures(ines)).toContainText('of 2 cases');
  });

  await test.step('a member stays with a version', async () => {
    await line(ines, 'Half a cent').getByRole('link').focus();
    await line(ines, 'Half a cent').getByRole('button', { name: /^Version:/ }).click();
    await ines.getByRole('option', { name: /^stay with v/ }).click();
    await expect(line(ines, 'Half a cent')).toContainText(/v\d/);
  });

  await test.step('a rule keeps a part: what comes to match is in it at once', async () => {
    await ines.getByRole('button', { name: 'Part kept by a rule' }).click();
    await ines.keyboard.type('Tagged');
    const rule = ines.getByRole('group', { name: 'Rule of the part' });
    await expect(rule).toContainText('finds nothing yet');
    await rule.getByRole('combobox', { name: /^Filter the cases/ }).fill('tag:pilot');
    await expect(rule).toContainText('adds 0');
    await ines.keyboard.press('Control+s');
    await expect(ines.getByText('v2 · saved')).toBeVisible();
    const rui = await openAs(browser, 'Rui M.', '/cases/C-32');
    await rui.getByRole('button', { name: /^More/ }).click();
    await rui.getByRole('textbox', { name: 'Tags' }).fill('roles, pilot');
    await rui.keyboard.press('Tab');
    await rui.keyboard.press('Control+s');
    await expect(rui.getByText('v2 · saved')).toBeVisible();
    await expect(line(ines, 'Each role tries each change')).toBeVisible();
    await expect(rule).toContainText('adds 1');
    await rui.context().close();
  });

  await test.step('what is missing of high risk is proposed and added; the rest is shown by nothing', async () => {
    const before = await figures(ines).textContent();
    await ines.getByRole('button', { name: 'Add what is missing' }).first().click();
    const dialog = ines.getByRole('dialog', { name: 'Add what is missing of high risk' });
    await expect(dialog.getByRole('checkbox').first()).toBeChecked();
    await expectAccessible(ines);
    await dialog.getByRole('button', { name: /^Add \d+ members/ }).click();
    await expect(figures(ines)).not.toHaveText(before ?? '');
    await expect(ines.getByRole('complementary', { name: 'Margin notes' }).getByText(/^High risk/)).not.toContainText('shown by other cases');
    await ines.keyboard.press('Control+s');
    await expect(ines.getByText('v3 · saved')).toBeVisible();
  });

  await test.step('from a selection of cases into a suite, and undone', async () => {
    await ines.goto('/fonte-clara/cases?query=explore');
    await ines.getByRole('list', { name: 'Cases' }).getByRole('link', { name: /Explore readings/ }).press(' ');
    await ines.getByRole('button', { name: 'Add to a suite' }).click();
    const dialog = ines.getByRole('dialog', { name: 'Add to a suite' });
    await dialog.getByRole('button', { name: /^Suite:/ }).click();
    await ines.getByRole('option', { name: new RegExp(id) }).click();
    await dialog.getByRole('button', { name: /^Add \d member/ }).click();
    await ines.getByRole('button', { name: `Open ${id}` }).click();
    await expect(ines.getByText('v4 · saved')).toBeVisible();
    await expect(line(ines, 'Explore readings')).toBeVisible();
  });
});

test('the smallest suite is worked out beside the page and proved, before anybody is taken out', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/suites/U-3');
  const before = await figures(rui).getByText('items shown').textContent();
  await rui.getByRole('button', { name: 'Make it smaller' }).click();
  const dialog = rui.getByRole('dialog', { name: 'Make it smaller' });
  const proved = dialog.getByText(/show the same.*Proved: no smaller choice does\./);
  await expect(proved).toContainText('members show the same');
  await dialog.getByRole('button', { name: /^As small as possible:/ }).press(' ');
  await rui.getByRole('option', { name: 'least minutes' }).click();
  await expect(proved).toContainText(/of \d+\sh show the same, with \d+ members/);
  await expectAccessible(rui);
  await dialog.getByRole('button', { name: /^Take \d+ members? out/ }).click();
  await expect(rui.getByText(/\d+ members, \d+ parts/)).not.toHaveText('20 members, 5 parts');
  await expect(figures(rui).getByText('items shown')).toHaveText(before ?? '');
});

test('by keyboard a suite is put in the order that shows most risk soonest, and what fits in forty minutes is proved and becomes a suite', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/suites/U-1');
  const shown = await figures(rui).getByText('items shown').textContent();
  const first = await rui.getByRole('list', { name: 'Members' }).getByRole('listitem').allTextContents();
  await rui.getByRole('button', { name: 'order and time' }).press('Enter');
  const dialog = rui.getByRole('dialog', { name: 'Order and time' });
  await expect(dialog.getByRole('img', { name: /In the order proposed: 50\s% of the risk it shows after \d+\smin, now after \d+\smin/ })).toBeVisible();
  await expect(dialog.getByLabel(/^There are only/)).toBeFocused();
  await rui.keyboard.type('40');
  await expect(dialog.getByText(/\d+\s% of the risk it shows, by \d+ of 11 members in \d\d\smin. Proved: nothing shows more in that time\./)).toBeVisible();
  await expectAccessible(rui);
  await dialog.getByRole('button', { name: 'Put them in this order' }).press('Enter');
  await expect(figures(rui).getByText('items shown')).toHaveText(shown ?? '');
  const then = await rui.getByRole('list', { name: 'Members' }).getByRole('listitem').allTextContents();
  expect(then).not.toEqual(first);
  expect(then).toHaveLength(first.length);
  await rui.getByRole('button', { name: 'order and time' }).press('Enter');
  await expect(dialog.getByText('It is in the order in which most risk is shown soonest.')).toBeVisible();
  await dialog.getByLabel(/^There are only/).fill('40');
  await dialog.getByRole('button', { name: /^make a suite of these/ }).press('Enter');
  await expect(rui.getByRole('textbox', { name: /^Title of U-/ })).toHaveValue('What fits in 40 minutes');
  await expect(figures(rui)).toContainText(/[34]\d\smin/);
});

test('by keyboard the smallest suite for some requirements is worked out of all cases and scenarios, proved, and shows all of theirs that anything shows', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/suites');
  await rui.getByRole('button', { name: 'Smallest suite' }).press('Enter');
  const dialog = rui.getByRole('dialog', { name: 'Smallest suite' });
  const said = dialog.getByRole('status').filter({ hasText: 'show all of it that is shown.' });
  await expect(said).toContainText('Proved');
  const scope = dialog.getByRole('button', { name: /^It is to show/ });
  await scope.press('Space');
  await rui.waitForTimeout(200);
  await rui.keyboard.press('End');
  await rui.keyboard.press('Enter');
  await expect(dialog.getByText(/^Say which requirements/)).toBeVisible();
  await dialog.getByRole('combobox').focus();
  await rui.keyboard.type('module:access');
  await expect(said).toContainText('Proved');
  await expectAccessible(rui);
  const members = dialog.getByRole('list', { name: 'Members of the smallest suite' });
  const count = await members.getByRole('listitem').count();
  await dialog.getByRole('button', { name: `Make a suite of ${count} members` }).press('Enter');
  await expect(rui.getByRole('textbox', { name: /^Title of U-/ })).toHaveValue('Everything of module:access');
  await expect(rui.getByRole('list', { name: 'Members' }).getByRole('listitem')).toHaveCount(count);
});

test('two suites are compared, and what is in none is found and put into one', async ({ browser }) => {
  const teresa = await openAs(browser, 'Teresa L.', '/suites/U-1');
  await teresa.getByRole('button', { name: /^U-3 Bills/ }).click();
  const dialog = teresa.getByRole('dialog', { name: /^U-1 and U-3/ });
  await expect(dialog).toContainText('Half a cent on the whole bill');
  await expectAccessible(teresa);
  await dialog.getByRole('button', { name: 'Close' }).click();
  await teresa.getByRole('button', { name: 'look', exact: true }).click();
  await teresa.getByRole('checkbox', { name: 'Shares that do not add up' }).check();
  await teresa.getByRole('button', { name: 'Add 1 member to a suite' }).click();
  await teresa.getByRole('button', { name: /^Suite:/ }).click();
  await teresa.getByRole('option', { name: 'a new suite' }).click();
  await teresa.getByLabel('Name of the suite').fill('Flats');
  await teresa.getByRole('button', { name: 'Add 1 member', exact: true }).click();
  await expect(teresa.getByRole('textbox', { name: /^Title of U-/ })).toHaveValue('Flats');
  await expect(line(teresa, 'Shares that do not add up')).toBeVisible();
});

test('what changed since a baseline is told as the cases it touches, each with its reason, and becomes a suite', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/baselines/1');
  await rui.getByRole('button', { name: 'cases it touches' }).press('Enter');
  const dialog = rui.getByRole('dialog', { name: 'Cases it touches' });
  await expect(dialog.getByRole('list', { name: 'Changed themselves' }).getByRole('listitem').first()).toBeVisible();
  await expectAccessible(rui);
  const words = (await dialog.getByRole('button', { name: /^Make a suite of/ }).textContent()) ?? '';
  await dialog.getByRole('button', { name: /^Make a suite of/ }).press('Enter');
  await expect(rui.getByRole('textbox', { name: /^Title of U-/ })).toHaveValue('Touched by B-1 until now');
  await expect(rui.getByText(new RegExp(`^${words.replace('Make a suite of ', '')}, \\d parts?$`))).toBeVisible();
  await expect(rui.getByRole('list', { name: 'Members' }).getByRole('listitem').first().getByRole('textbox')).toHaveValue('Changed themselves');
});
