import { expect, test, type Page } from '@playwright/test';
import { UNASKED, PROJECT, openAs, saveVersion } from './helpers.ts';

/** What a page asks of the server, and how many bytes that answers, until it is read. */
function countRequests(page: Page): () => Promise<{ readonly asked: string[]; readonly bytes: number }> {
  const answers: Promise<{ readonly path: string; readonly bytes: number }>[] = [];
  page.on('requestfinished', (request) => {
    const path = new URL(request.url()).pathname;
    if (path.startsWith('/api/') && !path.endsWith('/events')) answers.push(request.sizes().then(({ responseBodySize }) => ({ path: `${request.method()} ${path}`, bytes: responseBodySize })));
  });
  return async () => {
    const all = await Promise.all(answers.splice(0));
    return { asked: all.map((a) => a.path), bytes: all.reduce((sum, a) => sum + a.bytes, 0) };
  };
}

test('seven tabs are kept up to date by one stream, and another’s save costs an open page nothing it does not show', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const first = await context.newPage();
  await first.goto('/');
  await first.getByRole('button', { name: 'Duarte P.' }).click();
  await expect(first.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  const tabs = [first];
  while (tabs.length < 7) tabs.push(await context.newPage());
  // A browser has six connections to a server: with a stream a tab the seventh would wait for ever.
  for (const tab of tabs) {
    await tab.goto(`${PROJECT}/cases/C-25`);
    await expect(tab.getByRole('textbox', { name: 'Title' })).toHaveValue('Password by length');
  }
  const ines = await openAs(browser, 'Inês V.', '/cases/C-23');
  const counted = tabs.map(countRequests);
  const title = ines.getByRole('textbox', { name: 'Title' });
  await expect(title).toHaveValue(/auditor/);
  const renamed = `The auditor reads everything ${Date.now() % 1_000}`;
  await title.fill(renamed);
  await ines.keyboard.press('Control+s');
  await expect(ines.getByText(/^v\d+ · saved/)).toBeVisible();
  for (const tab of tabs) await expect(tab.getByRole('list', { name: 'Cases' }).getByText(renamed)).toBeVisible(UNASKED);
  await first.waitForTimeout(500);
  for (const count of counted) expect((await count()).asked).toEqual([]);

  await first.bringToFront();
  // Signed out in one tab, nobody is told anything more, and all are led to the door.
  await first.getByRole('button', { name: 'Duarte P.: account' }).click();
  await first.getByRole('menuitem', { name: 'Sign out' }).click();
  for (const tab of tabs) await expect(tab.getByRole('button', { name: 'Duarte P.' })).toBeVisible(UNASKED);
  await context.close();
});

test('a case opened from the list asks for what it shows, and its own save for nothing that was saved', async ({ browser }) => {
  const rui = await openAs(browser, 'Rui M.', '/cases/C-26');
  await expect(rui.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await rui.waitForTimeout(800);
  const count = countRequests(rui);
  await rui.getByRole('list', { name: 'Cases' }).getByRole('link', { name: /^C-27/ }).click();
  await expect(rui.getByRole('textbox', { name: 'Title' })).toHaveValue('Session ends when idle');
  await rui.waitForTimeout(800);
  const { asked, bytes } = await count();
  expect(asked.length).toBeGreaterThan(0);
  expect([asked.length <= 6, bytes < 100_000, asked]).toEqual([true, true, asked]);
  await rui.getByRole('textbox', { name: 'Objective' }).click();
  await rui.keyboard.type('That a session is over in time');
  await saveVersion(rui, 2);
  await rui.waitForTimeout(800);
  const saved = await count();
  expect(saved.asked.filter((path) => path.startsWith('GET') && path.endsWith('/artefacts/C-27'))).toEqual([]);
  expect(saved.bytes).toBeLessThan(40_000);
  await rui.context().close();
});
