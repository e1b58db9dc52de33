import { expect, test } from '@playwright/test';
import { UNASKED, expectAccessible, openAs, saveVersion } from './helpers.ts';

test('a remark on marked words is heard at once, answered, settled, and stays with its words', async ({ browser }) => {
  const ines = await openAs(browser, 'Inês V.', '/cases/C-13');
  const rui = await openAs(browser, 'Rui M.', '/cases');
  const forRui = rui.getByRole('link', { name: /for you$/ });
  await expect(rui.getByRole('link', { name: /open questions?$/ })).toBeVisible();
  await expect(forRui).toHaveCount(0);

  await test.step('by keyboard, at the step one is in', async () => {
    await ines.getByRole('textbox', { name: 'Action of step 1' }).click();
    await ines.keyboard.press('End');
    await ines.keyboard.press('Control+Shift+ArrowLeft');
    const words = await ines.evaluate(() => getSelection()?.toString() ?? '');
    expect(words.trim()).not.toBe('');
    await ines.keyboard.press('Alt+r');
    await expect(ines.getByText(`On “${words}”`)).toBeVisible();
    await ines.keyboard.type('Which one, @Rui');
    await expect(ines.getByRole('option', { name: 'Rui M.' })).toBeVisible();
    await ines.waitForTimeout(200);
    await ines.keyboard.press('Enter');
    await ines.keyboard.type('? <img src=x onerror="document.title=1"> **this**');
    await ines.keyboard.press('Control+Enter');
    const said = ines.getByRole('list', { name: 'Remarks on C-13' });
    await expect(said).toContainText('Which one, @Rui M.');
    await expect(said.locator('strong', { hasText: 'this' })).toBeVisible();
    await expect(said.locator('img')).toHaveCount(0);
  });

  await test.step('the one it names finds it without loading anything, and answers', async () => {
    await expect(forRui).toContainText('1 remark for you', UNASKED);
    await forRui.click();
    await expect(rui.getByRole('heading', { name: 'Remarks for you' })).toBeVisible();
    await expectAccessible(rui);
    await rui.getByRole('list', { name: 'Open remarks' }).getByRole('link', { name: /^C-13/ }).click();
    await rui.getByRole('list', { name: 'Remarks on C-13' }).getByRole('button', { name: 'answer' }).click();
    await rui.keyboard.type('The first one.');
    await rui.keyboard.press('Control+Enter');
    await expect(ines.getByRole('list', { name: 'Remarks on C-13' })).toContainText('The first one.', UNASKED);
    await expect(forRui).toHaveCount(0, UNASKED);
  });

  await test.step('it stays with its step, and says so when that is gone', async () => {
    const list = ines.getByRole('list', { name: 'Remarks on C-13' });
    await ines.getByRole('textbox', { name: 'Action of step 1' }).click();
    await ines.keyboard.press('Alt+ArrowDown');
    await expect(list.getByRole('button', { name: 'Step 2, action' })).toBeVisible();
    await list.getByRole('button', { name: 'Step 2, action' }).click();
    await expect(ines.getByRole('textbox', { name: 'Action of step 2' })).toBeFocused();
    await expectAccessible(ines);
    await saveVersion(ines, 2);
    await expect(rui.getByRole('list', { name: 'Remarks on C-13' }).getByRole('button', { name: 'Step 2, action' })).toBeVisible(UNASKED);
  });

  await test.step('it waits in the inbox too, is read there by keyboard, and leads to its place', async () => {
    await rui.getByRole('link', { name: /^Inbox: \d+ not read$/ }).click();
    const named = rui.getByRole('link', { name: /Inês V\. named you on C-13/ });
    await expect(named).toBeVisible();
    await expectAccessible(rui);
    await named.focus();
    await rui.keyboard.press('Shift+Space');
    await rui.keyboard.press('Space');
    await expect(named).toHaveCount(0);
    await rui.getByRole('button', { name: 'Kept' }).click();
    await named.focus();
    await rui.keyboard.press('Enter');
    await expect(rui.getByRole('list', { name: 'Remarks on C-13' })).toBeVisible();
  });

  await test.step('what one wrote in is followed: a change is heard at once, with its difference', async () => {
    await rui.getByRole('button', { name: /^More/ }).click();
    // Ticked when the server has taken it.
    await rui.getByRole('checkbox', { name: 'Follow' }).click();
    await expect(rui.getByRole('checkbox', { name: 'Follow' })).toBeChecked();
    const unread = async () => Number(/\d+/.exec((await rui.getByRole('link', { name: /^Inbox/ }).getAttribute('aria-label')) ?? '')?.[0] ?? 0);
    const before = await unread();
    await ines.getByRole('textbox', { name: 'Action of step 1' }).click();
    await ines.keyboard.press('End');
    await ines.keyboard.type(' again');
    await saveVersion(ines, 3);
    await expect.poll(unread, UNASKED).toBe(before + 1);
    await rui.getByRole('link', { name: /^Inbox/ }).click();
    await rui.getByRole('link', { name: /Inês V\. changed C-13/ }).click();
    await expect(rui.locator('ins', { hasText: 'again' })).toBeVisible();
    await rui.goto('/fonte-clara/cases/C-13');
  });

  await test.step('settled, it is folded', async () => {
    await ines.getByRole('list', { name: 'Remarks on C-13' }).getByRole('button', { name: 'settled' }).click();
    await expect(ines.getByRole('button', { name: '1 thread settled' })).toBeVisible();
    await expect(rui.getByRole('button', { name: '1 thread settled' })).toBeVisible(UNASKED);
  });

  await test.step('a change is offered by keyboard, seen at once against what stands there, and taken as the next version', async () => {
    await rui.getByRole('textbox', { name: 'Action of step 2' }).click();
    await rui.keyboard.press('Alt+r');
    await rui.getByRole('button', { name: 'offer a change' }).click();
    await rui.getByRole('textbox', { name: /it should say$/ }).fill('Look at the bill of <month>');
    await rui.keyboard.press('Control+Enter');
    const offer = ines.getByRole('list', { name: 'Remarks on C-13' });
    await expect(offer.locator('ins').first()).toBeVisible(UNASKED);
    await expectAccessible(ines);
    await offer.getByRole('button', { name: 'Take it' }).click();
    await expect(ines.getByRole('textbox', { name: 'Action of step 2' })).toHaveText('Look at the bill of <month>');
    await expect(ines.getByRole('button', { name: '2 threads settled' })).toBeVisible();
    await expect(rui.getByRole('textbox', { name: 'Action of step 2' })).toHaveText('Look at the bill of <month>', UNASKED);
  });
});
