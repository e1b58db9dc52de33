import { chromium, type Page } from '@playwright/test';
import { CoverageIndex, matrixCells } from '@caderno/core/coverage';
import { axisLines, matrixOf, type AxisItem } from '@caderno/core/matrix';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { fillLarge } from './fillLarge.ts';
import { frameTime, timeToOpen } from './frames.ts';
import { LARGE, largeDesign, seeded } from './largeProject.ts';
import { p95, report, timed, type Figure } from './measure.ts';
import { spawnServer } from './startedServer.ts';

/** Its first line is drawn. */
const FIRST_ROW = "[...document.querySelectorAll('main button')].some((b) => b.textContent.startsWith('R-1'))";

/** The matrix of the large project: worked out, summed, opened in a browser and moved through. */
async function matrixFigures(databaseUrl: string): Promise<Figure[]> {
  return [...(await inTheCore()), ...(await inTheBrowser(databaseUrl))];
}

async function inTheCore(): Promise<Figure[]> {
  const design = largeDesign(4711);
  const random = seeded(13);
  const index = new CoverageIndex(design);
  const first = await timed(() => matrixCells(index));
  const edited = await p95(20, () => {
    const one = design.cases[random(LARGE.cases)];
    if (one === undefined) throw new Error('The large project has cases');
    index.apply({ kind: 'case', id: one.id, case: { ...one, content: { ...one.content, rows: one.content.rows.map((r) => ({ ...r, cells: { p: String(random(2000)) } })) } } });
    matrixCells(index);
  });
  const cells = matrixCells(index);
  const places = new Map(cells.conditions.map((id, place) => [id, place]));
  const columns = new Map(cells.columns.map((id, place) => [id, place]));
  const down = [...index.requirements.values()].map(({ requirement, conditions }): AxisItem => ({ id: requirement.id, group: requirement.module, places: [...conditions].flatMap((c) => places.get(c.id) ?? []) }));
  const across = design.cases.map(({ id }): AxisItem => ({ id, group: '', places: [columns.get(id) ?? -1].filter((p) => p >= 0) }));
  const summed = await p95(10, () => matrixOf(cells, axisLines(down, new Set()), axisLines(across, new Set())));
  return [
    { what: `cells of ${LARGE.conditions} conditions by ${LARGE.cases} cases, the first time`, ms: first, budget: 600 },
    { what: 'the same after a case was changed, p95', ms: edited, budget: 150 },
    { what: 'what a browser is sent of them', ms: JSON.stringify(cells).length / 1_000, budget: 2_000, unit: 'kB' },
    { what: `summed for ${LARGE.requirements} requirements by ${LARGE.cases} cases, p95`, ms: summed, budget: 150 },
  ];
}

async function inTheBrowser(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await spawnServer(databaseUrl, { CADERNO_WEB: String(await buildWeb()) });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.context().addCookies([{ name: 'caderno_session', value: token, url: server.origin }]);
    await page.goto(`${server.origin}/large/coverage`);
    await page.getByRole('heading', { name: 'Design coverage' }).waitFor({ timeout: 120_000 });
    const open = async (): Promise<number> => {
      const link = page.getByRole('link', { name: 'Matrix' });
      await link.waitFor();
      await page.waitForTimeout(2_000);
      return timeToOpen(page, () => link.click(), FIRST_ROW);
    };
    const cold = await open();
    await page.goBack();
    const warm = await open();
    const across = await medianFrame(page, 700, 0);
    const down = await medianFrame(page, 0, 700);
    return [
      { what: 'the matrix opened from the coverage page, the first time', ms: cold, budget: 1_000 },
      { what: 'opened again', ms: warm, budget: 1_000 },
      { what: 'between two frames while it is moved across, median', ms: across, budget: 17 },
      { what: 'between two frames while it is moved down, median', ms: down, budget: 17 },
    ];
  } finally {
    await browser.close();
    await server.stop();
  }
}

async function medianFrame(page: Page, x: number, y: number): Promise<number> {
  await page.mouse.move(800, 500);
  return frameTime(page, 0.5, async () => {
    for (let i = 0; i < 60; i += 1) {
      await page.mouse.wheel(x, y);
      await page.waitForTimeout(10);
    }
  });
}

if (process.argv[1]?.endsWith('matrix.bench.ts')) process.exitCode = report(await matrixFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
