import { chromium } from '@playwright/test';
const [origin, name, ...shots] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost'] });
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 1 })).newPage();
page.on('console', (m) => m.type() === 'error' && console.log('console', m.text()));
await page.goto(origin);
if (name !== '-') { await page.getByRole('button', { name }).click(); await page.getByRole('navigation', { name: 'Chapters' }).waitFor(); }
for (let i = 0; i < shots.length; i += 2) {
  if (shots[i] !== '.') await page.goto(origin + shots[i]);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: shots[i + 1] });
}
await browser.close();
