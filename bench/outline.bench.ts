import { chromium } from '@playwright/test';
import type { ImportDraft } from '@caderno/contract';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { frameTime, timeToOpen } from './frames.ts';
import { largeCsv } from './largeBasis.ts';
import { report, timed, type Figure } from './measure.ts';
import { startServer } from './startedServer.ts';

const COUNT = 10_000;
const KEY = 'outline';
/** Only what is found is listed. */
const FOUND = "document.querySelector('[aria-label=\"Outline of requirements\"]').textContent.includes('R-9876') && !document.querySelector('[aria-label=\"Outline of requirements\"]').textContent.includes('R-13')";

/** The outline of 10 000 requirements in the browser: opening, scrolling, filtering, reordering. */
async function outlineFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl, String(await buildWeb()));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'] });
  try {
    await server.makeProject(KEY);
    const draft = (await server.post(`/projects/${KEY}/imports?name=register.csv`, Buffer.from(largeCsv(COUNT, 4711)))) as ImportDraft;
    await server.post(`/projects/${KEY}/imports/${draft.id}/run`, { mapping: draft.mapping, reading: draft.reading, choices: {} });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const [name = '', value = ''] = server.cookie.split('=');
    await page.context().addCookies([{ name, value, url: server.origin }]);
    const rows = page.getByRole('list', { name: 'Outline of requirements' });
    const open = await timed(async () => {
      await page.goto(`${server.origin}/${KEY}/basis/R-13`);
      await rows.getByText('R-13').first().waitFor();
    });
    await page.getByText(/weak words/).waitFor({ timeout: 60_000 });
    await page.waitForTimeout(2_000);
    const scroll = await frameTime(page, 0.98, async () => {
      for (let i = 0; i < 40; i += 1) await page.mouse.move(300, 400).then(() => page.mouse.wheel(0, 700));
    });
    const query = page.getByRole('combobox', { name: 'Filter the requirements by a query' });
    const filter = await timeToOpen(page, () => query.fill('requirement 9876'), FOUND, 'input');
    await query.fill('');
    await page.getByLabel('Title of R-13').waitFor();
    await page.locator('body').click({ position: { x: 620, y: 790 } });
    const order = async (): Promise<string> => (await rows.getByRole('listitem').allTextContents()).join();
    await rows.getByText('R-13').first().waitFor();
    const before = await order();
    const move = await timed(async () => {
      await page.keyboard.press('Alt+ArrowUp');
      while ((await order()) === before) await page.waitForTimeout(5);
    });
    return [
      { what: `opening the outline of ${COUNT} requirements`, ms: open, budget: 3_000 },
      { what: 'longest frame while it is scrolled', ms: scroll, budget: 100 },
      { what: 'filtering it by words', ms: filter, budget: 150 },
      { what: 'reordering by key, until it is seen', ms: move, budget: 150 },
    ];
  } finally {
    await browser.close();
    await server.stop();
  }
}

const url = process.env.CADERNO_TEST_DATABASE;
if (url === undefined) throw new Error('Run it by npm run bench, which starts PostgreSQL');
process.exitCode = report(await outlineFigures(url)) ? 0 : 1;
