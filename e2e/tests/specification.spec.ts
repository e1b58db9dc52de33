import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, signIn } from './helpers.ts';

const laidOut = (page: Page) => page.locator('.pagedjs_page');

test('a module on pages by keyboard: its contents say where everything stands, and that is where it stands; the printer puts out just these pages', async ({ page }) => {
  await signIn(page, 'Olga S.', '/report');
  const link = page.getByRole('link', { name: 'The full specification' });
  await link.focus();
  await page.keyboard.press('Enter');
  const text = page.getByRole('article', { name: 'Specification' });
  await expect(text.getByRole('heading', { level: 1 })).toHaveText(/^Test design of Fonte Clara/);
  const of = page.getByRole('button', { name: /^Of/ });
  await of.focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(200);
  await page.keyboard.type('Access');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/module=Access$/);
  await expect(text.getByText(/^Of Access, with all that it uses/)).toBeVisible();
  await expect(text.getByRole('img', { name: /^State diagram of/ }).first()).toBeVisible();
  await expectAccessible(page);

  const begin = page.getByRole('button', { name: 'Lay out the pages' });
  await begin.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Print' })).toBeVisible();
  const count = await laidOut(page).count();
  await expect(page.getByRole('status').filter({ hasText: 'pages' })).toContainText(`${count} pages.`);

  // Each entry of the contents against the page on which it is found.
  const told = await page.locator('a.spec-entry').evaluateAll((entries) =>
    entries.map((entry) => {
      const { counterReset, counterIncrement } = getComputedStyle(entry, '::after');
      const said = /target-counter-\S+ (\d+)/.exec(`${counterReset} ${counterIncrement}`)?.[1];
      return [entry.getAttribute('href'), said, document.querySelector(entry.getAttribute('href') ?? '')?.closest('.pagedjs_page')?.getAttribute('data-page-number')];
    }),
  );
  expect(told.length).toBeGreaterThan(10);
  expect(told.map(([href, said]) => [href, said])).toEqual(told.map(([href, , stands]) => [href, stands]));
  const pdf = await page.pdf({ preferCSSPageSize: true });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(count);

  // What was inserted for the pages does not stay on others.
  await page.getByRole('button', { name: 'Back to the text' }).click();
  await expect(text).toBeVisible();
  await expect(laidOut(page)).toHaveCount(0);
  expect(await page.locator('style[data-pagedjs-inserted-styles]').count()).toBe(0);
});

test('laying out can be stopped, and one can leave meanwhile', async ({ page }) => {
  await signIn(page, 'Inês V.', '/specification');
  await page.getByRole('button', { name: 'Lay out the pages' }).click();
  await expect(page.getByText(/^Page \d+ …/)).toBeVisible();
  // By key: a pointer waits until nothing moves, which while pages are laid out takes most of a minute.
  await page.getByRole('button', { name: 'Stop' }).press('Enter');
  await expect(page.getByRole('article', { name: 'Specification' })).toBeVisible();
  await expect(laidOut(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Lay out the pages' }).click();
  await expect(page.getByText(/^Page \d+ …/)).toBeVisible();
  await page.getByRole('link', { name: /^Coverage/ }).first().press('Enter');
  await expect(page.getByRole('heading', { name: 'Design coverage' })).toBeVisible();
  await expect(page.locator('style[data-pagedjs-inserted-styles]')).toHaveCount(0);
});

test('opened at a baseline it is the document of then', async ({ page }) => {
  await signIn(page, 'Olga S.', '/baselines/1');
  await page.getByRole('link', { name: 'Open the project as it was' }).click();
  await page.getByRole('link', { name: 'Specification', exact: true }).click();
  const then = page.getByRole('article', { name: 'Specification' });
  await expect(then.getByRole('heading', { level: 1 })).toBeVisible();
  // The requirement was said otherwise then: its first version is what stands in the document.
  const leak = then.locator('#spec-R-11');
  await expect(leak).toContainText('version 1');
  await page.goto('/fonte-clara/specification');
  await expect(leak).toContainText('version 2');
  await page.goto('/fonte-clara@B-1/report');
  await expect(page.getByText('The report is of now')).toBeVisible();
});
