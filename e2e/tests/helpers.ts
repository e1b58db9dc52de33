import AxeBuilder from '@axe-core/playwright';
import type { Session } from '@caderno/contract';
import { expect, type Browser, type Locator, type Page } from '@playwright/test';

/**
 * What others do is seen without asking for it: far below the time after which a page asks by itself, and above what a busy machine stands still.
 * How soon it is seen is measured in together.spec.
 */
export const UNASKED = { timeout: 20_000 };

export const PROJECT = '/fonte-clara';

/** Signs in as a person of the demo. By hand it is done in keyboard.spec: loading the page for it each time would be a tenth of all. */
export async function signIn(page: Page, name: string, path = ''): Promise<void> {
  const { demoPeople } = (await (await page.request.get('/api/v1/session')).json()) as Session;
  const person = demoPeople.find((p) => p.name === name);
  expect((await page.request.post('/api/v1/session', { data: { demoPerson: person?.id } })).ok()).toBe(true);
  await page.goto(PROJECT + path);
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
}

/** A person in a browser window of their own. */
export async function openAs(browser: Browser, name: string, path: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await signIn(page, name, path);
  return page;
}

export async function saveVersion(page: Page, version: number): Promise<void> {
  await page.keyboard.press('Control+s');
  await expect(page.getByText(`v${version} · saved`)).toBeVisible();
}

/** Lets go of what is not saved. */
export async function discard(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Other ways to end this edit' }).click();
  await page.getByRole('menuitem', { name: 'Discard what is not saved' }).click();
}

export function items(page: Page): Locator {
  return page.getByRole('list', { name: 'Coverage items' }).getByRole('listitem');
}

/** Pastes text where the focus is, as from a spreadsheet or any other program. */
export async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((t) => {
    const data = new DataTransfer();
    data.setData('text/plain', t);
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
}

export async function expectAccessible(page: Page): Promise<void> {
  // What fades in or out is paler than it is meant to be: it is judged when it has come or gone.
  await page.evaluate(() => Promise.allSettled(document.getAnimations().flatMap((a) => (a.effect?.getComputedTiming().iterations === Infinity ? [] : [a.finished]))));
  // Run whole in the page: without frames of others nothing is gained from doing it in parts, which takes four times as long.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'] })
    .analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual([]);
}

/** Takes the new parameter that is offered. A list that has only just opened takes no key, so that nobody chooses what they have not seen. */
export async function takeNewParameter(page: Page): Promise<void> {
  await expect(page.getByRole('option', { name: /new parameter/ })).toBeVisible();
  await page.waitForTimeout(200);
  await page.keyboard.press('Enter');
}
