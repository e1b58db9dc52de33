import { expect, test } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { firstPaintBytes } from '../../bench/firstPaintBytes.ts';
import { PROJECT, expectAccessible, openAs, saveVersion, signIn } from './helpers.ts';

const VIEWS = ['/basis', '/basis/R-3', '/conditions', '/conditions/R-3/K-4', '/conditions/R-3/K-8', '/condition/K-44', '/condition/K-46', '/condition/K-48', '/cases', '/cases/C-4', '/cases/C-39', '/cases/C-41', '/cases/C-3?left=shared', '/read/C-39', '/read?cases=C-41,C-3', '/reuse?of=S-7', '/alike', '/shared', '/shared/S-5', '/shared/D-4', '/shared?left=data', '/cases/C-43', '/coverage', '/coverage?standing=gap,linked', '/coverage?list=unanalysed', '/versions/C-4', '/journal', '/people', '/questions', '/questions/Q-1', '/agenda', '/suspect', '/glossary', '/glossary?term=New', '/import', '/settings', '/suites', '/suites/U-1', '/suites/U-2', '/hand-offs', '/hand-offs/new', '/hand-offs/new?suite=U-2', '/trend', '/trend?of=module&show=notShown&as=bars', '/report', '/specification?requirement=R-3', '/matrix', '/matrix?of=conditions&by=scenarios&turned=yes', '/counts', '/counts?kind=case&down=tags&across=owner', '/counts?kind=condition&as=bars&line=%3Dplain'];

test('every view has no serious finding of axe, no error in the console, and the policy is kept', async ({ page }) => {
  test.setTimeout(420_000);
  const errors: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text());
  });
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Look around as one of them' })).toBeVisible();
  await expectAccessible(page);
  await signIn(page, 'Inês V.');
  for (const view of VIEWS) {
    await test.step(view, async () => {
      await page.goto(PROJECT + view);
      await expect(page.getByText('Reading …', { exact: true }), view).toHaveCount(0);
      await expectAccessible(page);
    });
  }
  expect(errors).toEqual([]);
});

test('what a page waits for before anything is painted is 250 kB of scripts at most', async () => {
  expect(await firstPaintBytes(fileURLToPath(new URL('../../web/dist/assets', import.meta.url)))).toBeLessThan(250_000);
});

test('whatever is typed is shown as text and never run', async ({ page }) => {
  const hostile = `<script>window.ran = 1</script><img src=x onerror="window.ran = 1"> [link](javascript:window.ran=1) \u202Eabc 💧 <u>`;
  await signIn(page, 'Inês V.', '/basis');
  await page.getByRole('button', { name: 'New', exact: true }).click();
  const title = page.getByRole('textbox', { name: /^Title of R-/ });
  await expect(title).toBeFocused();
  await title.fill(hostile);
  await page.getByRole('button', { name: 'Write it' }).click();
  await page.keyboard.insertText(hostile);
  await page.keyboard.press('Escape');
  await saveVersion(page, 2);
  await page.reload();
  await expect(title).toHaveValue(hostile);
  await expect(page.locator('article a[href^="javascript"], article img, article script')).toHaveCount(0);
  await page.goto(`${PROJECT}/coverage`);
  expect(await page.evaluate(() => 'ran' in window)).toBe(false);
});

test('readers read everything and are offered nothing to change', async ({ browser }) => {
  const page = await openAs(browser, 'Olga S.', '/cases/C-4');
  await expect(page.getByRole('list', { name: 'Steps' })).toContainText('Confirm the reading');
  await expect(page.getByRole('button', { name: /Write the next step|Save v|Generate rows|undo/ })).toHaveCount(0);
  await page.goto(`${PROJECT}/journal`);
  await expect(page.getByRole('listitem').first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Undo/ })).toHaveCount(0);
});

test('the columns of a case’s data stand side by side, with parameters or without', async ({ page }) => {
  await signIn(page, 'Inês V.');
  for (const id of ['C-4', 'C-23']) {
    await page.goto(`${PROJECT}/cases/${id}`);
    const heads = page.getByRole('grid', { name: 'Data rows' }).getByRole('columnheader');
    await expect(heads.last()).toHaveText('shows');
    const boxes = await Promise.all([heads.filter({ has: page.getByRole('button', { name: 'Column row' }) }), heads.last()].map((head) => head.boundingBox()));
    expect(boxes[0]?.y).toBe(boxes[1]?.y);
    expect(boxes[0]?.x).toBeLessThan(boxes[1]?.x ?? 0);
  }
});

test('addresses that name nothing say so', async ({ page }) => {
  await signIn(page, 'Inês V.', '/cases/C-9999');
  await expect(page.getByText('There is no C-9999 in this project.')).toBeVisible();
  await page.goto('/another-project/coverage');
  await expect(page.getByText('You have no project “another-project”.')).toBeVisible();
});
