import { chromium, type Page } from '@playwright/test';
import { EMPTY_FEATURE, Phrasebook, alikePhrases, phraseUses, withText, type FeatureContent } from '@caderno/core/scenarios';
import { randomUUID } from 'node:crypto';
import type { FeaturesDraft } from '@caderno/contract';
import { zipSync } from 'fflate';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { report, timed, type Figure } from './measure.ts';
import { startServer, type StartedServer } from './startedServer.ts';

const KEY = 'scenarios';
const FEATURES = 1_000;
const SCENARIOS = 10;
const STEPS = 8;
const LONG = 200;

const WHO = ['the clerk', 'the reader', 'a member', 'the treasurer', 'the auditor'];
const DOES = ['enters', 'sees', 'pays', 'sends', 'stores', 'refuses', 'prints', 'opens'];
const WHAT = ['a reading', 'the bill', 'the letter', 'the ledger', 'a receipt', 'the meter', 'an appeal', 'the tariff', 'a message', 'the report'];

function step(n: number): string {
  const keyword = ['Given', 'And', 'When', 'And', 'Then', 'And', 'And', 'But'][n % STEPS] ?? 'And';
  return `    ${keyword} ${WHO[n % 5]} ${DOES[(n * 7) % 8]} ${WHAT[(n * 3) % 10]} number ${n % 97} of "M-${n % 50}"${n % 11 === 0 ? ` in town ${n % 13}` : ''}`;
}

function featureText(f: number, scenarios = SCENARIOS): string {
  const lines = [`@area-${f % 20}`, `Feature: Feature number ${f}`, '  Told in a line.', ''];
  for (let s = 0; s < scenarios; s += 1) {
    lines.push(...(s % 4 === 0 ? ['  @smoke'] : []), `  Scenario: Scenario ${s} of ${f}`);
    for (let k = 0; k < STEPS; k += 1) lines.push(step(f * 131 + s * 17 + k));
    lines.push('');
  }
  return lines.join('\n');
}

function contentOf(text: string): FeatureContent {
  return withText({ ...EMPTY_FEATURE, path: 'f.feature' }, text, () => randomUUID().slice(0, 8));
}

/** The phrasebook and a key in a long feature, without any page. */
async function coreFigures(): Promise<Figure[]> {
  const contents = Array.from({ length: FEATURES }, (_, f) => contentOf(featureText(f)));
  const book = new Phrasebook();
  const scratch = await timed(() => {
    contents.forEach((content, f) => book.put(`F-${f + 1}`, phraseUses(content)));
    book.phrases();
  });
  const edit = await timed(() => {
    book.put('F-7', phraseUses(contentOf(featureText(2_000))));
    book.phrases();
  });
  const alike = await timed(() => alikePhrases(book.phrases()));
  const twice = await timed(() => book.writtenTwice());
  const long = contentOf(featureText(1, LONG));
  const keys: number[] = [];
  let now = long;
  for (let i = 0; i < 20; i += 1) {
    const text = featureText(1, LONG).replace('Scenario 100 of 1', `Scenario 100 of 1${'x'.repeat(i + 1)}`);
    keys.push(await timed(() => (now = withText(now, text, () => randomUUID().slice(0, 8), long.parts))));
  }
  return [
    { what: `phrasebook of ${FEATURES * SCENARIOS * STEPS} steps from scratch`, ms: scratch, budget: 1_000 },
    { what: 'the same after an edit of one feature', ms: edit, budget: 50 },
    { what: 'phrases nearly alike', ms: alike, budget: 5_000 },
    { what: `scenarios written twice among ${FEATURES * SCENARIOS}`, ms: twice, budget: 5_000 },
    { what: `a feature of ${LONG} scenarios taken apart after a key, median`, ms: keys.toSorted((a, b) => a - b)[10] ?? Infinity, budget: 16 },
  ];
}

async function importing(server: StartedServer): Promise<Figure[]> {
  const files = Object.fromEntries(Array.from({ length: FEATURES }, (_, f) => [`area-${f % 20}/feature-${f}.feature`, new TextEncoder().encode(featureText(f))]));
  const zip = Buffer.from(zipSync(files, { level: 1 }));
  let draft: FeaturesDraft | null = null;
  const preview = await timed(async () => {
    draft = (await server.post(`/projects/${KEY}/imports/features?name=all.zip`, zip)) as FeaturesDraft;
  });
  const brought = draft as FeaturesDraft | null;
  if (brought?.counts.added !== FEATURES) throw new Error(`All features are new: expected ${FEATURES}, got ${brought?.counts.added ?? 0}`);
  const run = await timed(() => server.post(`/projects/${KEY}/imports/${brought.id}/features/run`, { choices: {} }));
  const phrases = await timed(() => server.get(`/projects/${KEY}/phrases`));
  const again = await timed(() => server.get(`/projects/${KEY}/phrases`));
  return [
    { what: `import of ${FEATURES} features, ${FEATURES * SCENARIOS} scenarios: preview and run`, ms: preview + run, budget: 10_000 },
    { what: 'the phrasebook asked of the server, the first time', ms: phrases, budget: 3_000 },
    { what: 'the same again', ms: again, budget: 300 },
  ];
}

const WATCH_KEYS = `
  globalThis.keyTimes = [];
  window.addEventListener('keydown', () => {
    const began = performance.now();
    requestAnimationFrame(() => {
      const channel = new MessageChannel();
      channel.port1.onmessage = () => globalThis.keyTimes.push(performance.now() - began);
      channel.port2.postMessage(0);
    });
  }, true);`;

async function typing(server: StartedServer): Promise<Figure[]> {
  const made = (await server.post(`/projects/${KEY}/artefacts`, { kind: 'feature', content: contentOf(featureText(1, LONG)) })) as { summary: { id: string } };
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const [name = '', value = ''] = server.cookie.split('=');
    await page.context().addCookies([{ name, value, url: server.origin }]);
    await page.goto(`${server.origin}/${KEY}/scenarios/F-1`);
    await page.getByLabel('Text of the feature').waitFor();
    const open = await opening(page, made.summary.id);
    await page.locator('.cm-line').filter({ hasText: 'Scenario 1 of 1' }).first().click();
    await page.keyboard.press('End');
    await page.waitForTimeout(1_500);
    await page.evaluate(WATCH_KEYS);
    for (const key of 'abcdefghijklmnopqrst') {
      await page.keyboard.press(key);
      await page.waitForTimeout(200);
    }
    const keys = ((await page.evaluate('globalThis.keyTimes')) as number[]).sort((a, b) => a - b);
    return [
      { what: `opening a feature of ${LONG} scenarios`, ms: open, budget: 300 },
      { what: 'a key typed into it, until the next frame, median', ms: keys[keys.length >> 1] ?? Infinity, budget: 16 },
    ];
  } finally {
    await browser.close();
  }
}

/** From the click on its line until its text stands there. */
async function opening(page: Page, id: string): Promise<number> {
  await page.getByRole('combobox', { name: 'Filter the features by a query' }).fill(`id:${id}`);
  await page.getByRole('list', { name: 'Features' }).getByRole('link', { name: new RegExp(`^${id}`) }).waitFor();
  return Number(await page.evaluate(`(async () => {
    const began = performance.now();
    [...document.querySelectorAll('a')].find((a) => a.getAttribute('href')?.includes('/scenarios/${id}')).click();
    while (!document.querySelector('.cm-content')?.textContent.includes('Scenario 3 of 1')) await new Promise((r) => requestAnimationFrame(r));
    return performance.now() - began;
  })()`));
}

async function all(databaseUrl: string): Promise<Figure[]> {
  const figures = await coreFigures();
  const server = await startServer(databaseUrl, String(await buildWeb()));
  try {
    await server.makeProject(KEY);
    return [...figures, ...(await importing(server)), ...(await typing(server))];
  } finally {
    await server.stop();
  }
}

const url = process.env.CADERNO_TEST_DATABASE;
if (url === undefined) throw new Error('Run it by npm run bench, which starts PostgreSQL');
process.exitCode = report(await all(url)) ? 0 : 1;
