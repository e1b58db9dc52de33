import { expect, test } from '@playwright/test';
import { expectAccessible, openAs } from './helpers.ts';

test('one looks back from the journal, and sees only what is agreed; what follows the agreed version moves when it is agreed', async ({ browser }) => {
  const ines = await openAs(browser, 'Inês V.', '/cases/C-38');
  const past = ines.getByRole('note', { name: 'As it was' });

  await test.step('two versions later the one between is read again, in the whole project of then', async () => {
    const field = ines.getByRole('textbox', { name: 'Title of C-38' });
    for (const [word, version] of [[' soon', 2], [' at once', 3]] as const) {
      await field.click();
      await ines.keyboard.press('End');
      await ines.keyboard.type(word);
      await ines.keyboard.press('Control+s');
      await expect(ines.getByText(`v${version} · saved`)).toBeVisible();
    }
    await ines.getByRole('link', { name: 'Versions' }).click();
    await ines.getByRole('link', { name: /^Look back/ }).nth(1).click();
    await expect(past).toContainText(/^The project as it was on .*Nothing can be changed here/);
    await expect(field).toHaveValue('A reading reaches the bill soon');
    await expect(ines.getByText('at once')).toHaveCount(0);
    await expect(ines.getByRole('button', { name: 'New' })).toHaveCount(0);
    await expectAccessible(ines);
    await ines.getByRole('link', { name: 'This page now' }).click();
    await expect(past).toHaveCount(0);
    await expect(field).toHaveValue('A reading reaches the bill soon at once');
  });

  await test.step('a use that follows what is agreed means the version that somebody agrees to now', async () => {
    await expect(ines.getByText(/^follows what is agreed, v1; v2 is there/)).toBeVisible();
    const teresa = await openAs(browser, 'Teresa L.', '/shared/S-6');
    await teresa.getByRole('button', { name: /^State:/ }).click();
    await teresa.getByRole('option', { name: 'Agreed' }).click();
    await expect(teresa.getByRole('button', { name: /^State:/ })).toHaveText('Agreed');
    await expect(ines.getByText(/^follows what is agreed, v2/)).toBeVisible();
    await teresa.context().close();
  });

  await test.step('by keyboard to what is agreed: the cases that are, and nothing else', async () => {
    await ines.keyboard.press('Control+k');
    await ines.keyboard.type('only what is agreed');
    await expect(ines.getByText('See only what is agreed')).toBeVisible();
    await ines.keyboard.press('Enter');
    await expect(past).toContainText('Only what is agreed');
    // The page one came from is of a case that nobody agreed to.
    await expect(ines.getByRole('heading', { name: 'This cannot be shown' })).toBeVisible();
    await ines.getByRole('navigation', { name: 'Chapters' }).getByRole('link', { name: /^Cases/ }).click();
    await expect(ines.getByRole('link', { name: /Charge each band at its own price/ })).toBeVisible();
    await expect(ines.getByRole('link', { name: /A reading reaches the bill/ })).toHaveCount(0);
    await expectAccessible(ines);
  });
});
