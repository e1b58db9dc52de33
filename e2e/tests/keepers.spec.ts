import { expect, test, type Page } from '@playwright/test';
import { UNASKED, expectAccessible, openAs, signIn } from './helpers.ts';

const MODULE = 'Public API';

async function keep(page: Page, choose: (dialog: ReturnType<Page['getByRole']>) => Promise<void>): Promise<void> {
  await page.goto('/fonte-clara/settings');
  await page.getByRole('button', { name: new RegExp(`^changed by .*${MODULE}$`, 'i') }).click();
  const dialog = page.getByRole('dialog', { name: `Who changes ${MODULE}` });
  await choose(dialog);
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Set' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeHidden();
}

test('a lead gives a module to some: others read it and say so much, see at once when it is everybody’s again, and lose nothing', async ({ page, browser }) => {
  await signIn(page, 'Inês V.', '/settings');
  const open = async (name: string): Promise<Page> => {
    const other = await openAs(browser, name, `/cases?query=${encodeURIComponent(`module:"${MODULE}"`)}`);
    await other.getByRole('link', { name: /^C-\d+/ }).first().click();
    return other;
  };
  const duarte = await open('Duarte P.');
  const title = duarte.getByRole('textbox', { name: /^Title of C-/ });
  await expect(title).toBeEditable();
  await keep(page, async (dialog) => {
    await dialog.getByLabel('only these, and leads').click();
    await expect(dialog.getByRole('button', { name: 'Set' })).toBeDisabled();
    await dialog.getByLabel('Rui M.').check();
  });
  const note = duarte.getByRole('note', { name: 'Who changes this' });
  await expect(note).toHaveText(`Only Rui M. and leads change what is in ${MODULE}. You can read it, and leave a remark.`, UNASKED);
  await expect(title).not.toBeEditable();
  await expect(duarte.getByRole('button', { name: 'Write one' })).toBeEnabled();
  const rui = await open('Rui M.');
  await expect(rui.getByRole('textbox', { name: /^Title of C-/ })).toBeEditable();
  await expect(rui.getByRole('note', { name: 'Who changes this' })).toBeHidden();
  await keep(page, (dialog) => dialog.getByLabel('everybody who may edit').click());
  await expect(note).toBeHidden(UNASKED);
  await expect(title).toBeEditable();
});
