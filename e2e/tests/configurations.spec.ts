import { EMPTY_CASE, plainStep, stepId } from '@caderno/core/cases';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, saveVersion, signIn } from './helpers.ts';

const HOME = '/vale-seco';

async function createCase(page: Page, title: string, estimate: number): Promise<void> {
  const content = { ...EMPTY_CASE, title, estimate, steps: [plainStep(stepId('s'), 'look at it', 'it is there')] };
  const made = await page.request.post(`/api/v1/projects${HOME}/artefacts`, { data: { kind: 'case', content } });
  if (made.status() !== 200) throw new Error(await made.text());
}

test('in a new project configurations are made of factors, a suite runs in them, a member in one alone, and so it is handed off', async ({ page }) => {
  await signIn(page, 'Inês V.');
  await page.goto('/new-project');
  await page.getByLabel('Name').fill('Vale Seco');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`${HOME}/basis$`));
  for (const [title, minutes] of [['The page opens', 5], ['A reading is taken in the field', 10]] as const) await createCase(page, title, minutes);

  await test.step('a suite says where the way begins, while there is nothing to choose', async () => {
    await page.goto(`${HOME}/suites`);
    await page.getByRole('button', { name: 'New' }).click();
    await expect(page.getByRole('textbox', { name: 'Title of U-1' })).toBeFocused();
    await page.keyboard.type('Smoke');
    for (const title of ['The page opens', 'A reading is taken']) {
      await page.getByRole('combobox', { name: 'Add a case or scenario' }).fill(title);
      await page.getByRole('option', { name: new RegExp(title) }).click();
    }
    await saveVersion(page, 2);
    await page.getByRole('button', { name: 'Choose configurations' }).click();
    const dialog = page.getByRole('dialog', { name: 'Where it runs' });
    await expect(dialog).toContainText('The project has no configurations yet');
    await dialog.getByRole('link', { name: 'settings' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Factors' })).toBeVisible();
  });

  await test.step('factors are typed, and pasted from a column; a wrong rule is said while it is typed', async () => {
    const name = (factor: string) => page.getByRole('textbox', { name: `Name of the factor ${factor}` });
    await page.getByRole('button', { name: 'Add a factor' }).press('Enter');
    await name('factor 1').fill('device');
    await page.getByRole('textbox', { name: 'Values of device' }).focus();
    await page.keyboard.insertText('computer\ntelephone\n\ncomputer\n');
    await page.getByRole('button', { name: 'Add a factor' }).press('Enter');
    await name('factor 2').fill('role');
    await page.getByRole('textbox', { name: 'Values of role' }).fill('clerk,reader , "the member"');
    const rules = page.getByRole('textbox', { name: /^what does not go together/ });
    await rules.fill('if role = reader then device = phone');
    await expect(page.getByRole('alert').filter({ hasText: 'phone' })).toContainText('“phone” is no value of device.');
    await rules.fill('if role = reader then device = telephone');
    await expect(page.getByText('is no value of')).toHaveCount(0);
    await expect(page.getByRole('textbox', { name: 'Values of device' })).toHaveValue('computer, telephone');
    await expectAccessible(page);
    await page.keyboard.press('Control+s');
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toHaveCount(0);
  });

  await test.step('the suite runs in pairs of them; one member alone at the telephone', async () => {
    await page.goto(`${HOME}/suites/U-1`);
    await page.getByRole('button', { name: 'Choose configurations' }).press('Enter');
    await page.getByRole('button', { name: 'Make configurations of the project’s factors' }).press('Enter');
    const dialog = page.getByRole('dialog', { name: 'Make configurations' });
    await expect(dialog.getByRole('status')).toHaveText('5 combinations of values in 5 configurations.');
    await dialog.getByRole('checkbox', { name: '"the member"' }).press('Space');
    await expect(dialog.getByRole('status')).toHaveText('3 combinations of values in 3 configurations.');
    await expectAccessible(page);
    await dialog.getByRole('button', { name: 'Run in 3 configurations' }).press('Enter');
    await expect(page.getByText(/^Runs in/)).toContainText(/computer, clerk/);
    await expect(page.getByRole('list', { name: 'Figures of the suite' })).toContainText('6instances of 2 cases in 3 configurations');
    await page.getByRole('link', { name: 'A reading is taken in the field' }).focus();
    await page.getByRole('button', { name: 'Where C-2 runs' }).press('Enter');
    const where = page.getByRole('dialog', { name: 'Where C-2 runs' });
    for (const name of ['computer, clerk', 'telephone, clerk']) await where.getByRole('checkbox', { name }).press('Space');
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('listitem').filter({ hasText: 'A reading is taken' })).toContainText('in telephone, reader');
    await expect(page.getByRole('list', { name: 'Figures of the suite' })).toContainText('25 min');
    await saveVersion(page, 3);
  });

  await test.step('made again they are the same ones; handed off, each is executed where it runs', async () => {
    await page.getByRole('button', { name: 'Choose configurations' }).press('Enter');
    await page.getByRole('button', { name: 'Make configurations of the project’s factors' }).press('Enter');
    await expect(page.getByRole('dialog').getByRole('status')).toHaveText('5 combinations of values in 5 configurations, 3 of them there already.');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Hand it off' }).press('Enter');
    await expect(page.getByRole('checkbox', { name: /^telephone, reader/ })).toBeChecked();
    await page.getByRole('checkbox', { name: /^computer, clerk/ }).press('Space');
    await page.getByRole('button', { name: 'Hand off 3 instances' }).click();
    await expect(page.getByRole('heading', { name: 'Smoke' })).toBeVisible();
  });
});
