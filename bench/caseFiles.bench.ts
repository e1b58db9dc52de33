import { randomUUID } from 'node:crypto';
import type { CaseDraft, CasePreview, FoundPlaces } from '@caderno/contract';
import { writeCsv } from '@caderno/core/exchange';
import { report, timed, type Figure } from './measure.ts';
import { startServer, type StartedServer } from './startedServer.ts';

const COUNT = 10_000;
const STEPS = 6;
const KEY = 'files';

/** Cases in from a file and out to one, and words looked for and replaced in all of them, through a server as it is started. */
async function caseFileFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl);
  try {
    await server.makeProject(KEY);
    const figures = await importing(server);
    const memory = await server.mostMemory();
    await bringIn(server, 'second.csv');
    return [...figures, { what: 'most memory the server took for them', ms: memory, budget: 500, unit: 'MB' }, ...(await replacing(server)), ...(await exporting(server))];
  } finally {
    await server.stop();
  }
}

/** A row a step, the cells of a case left empty below. */
function sheet(source: string): Buffer {
  const rows = [['ID', 'Title', 'Module', 'Priority', 'Step', 'Action', 'Expected result']];
  for (let c = 1; c <= COUNT; c += 1) {
    for (let s = 1; s <= STEPS; s += 1) {
      const head = s === 1 ? [`${source}-${c}`, `Case ${c} of ${source}: reading number ${c}`, `Module ${c % 40}`, ['high', 'medium', 'low'][c % 3] ?? ''] : ['', '', '', ''];
      rows.push([...head, String(s), `Enter <reading ${s}> for the meter ${c} and confirm step ${s}`, s % 2 === 0 ? `The ledger shows ${c * s} for the meter` : '']);
    }
  }
  return Buffer.from(writeCsv(rows));
}

async function bringIn(server: StartedServer, name: string): Promise<{ readonly preview: number; readonly run: number }> {
  const csv = sheet(name.replace('.csv', ''));
  let draft: CaseDraft | null = null;
  let added = 0;
  const preview = await timed(async () => {
    draft = (await server.post(`/projects/${KEY}/imports/cases?name=${name}`, csv)) as CaseDraft;
    added = ((await server.post(`/projects/${KEY}/imports/${draft.id}/cases/preview`, { mapping: draft.mapping, reading: draft.reading })) as CasePreview).counts.added;
  });
  if (draft === null || added !== COUNT) throw new Error(`All is new: expected ${COUNT}, got ${added}`);
  const file: CaseDraft = draft;
  return { preview, run: await timed(() => server.post(`/projects/${KEY}/imports/${file.id}/cases/run`, { mapping: file.mapping, reading: file.reading, choices: {} })) };
}

async function importing(server: StartedServer): Promise<Figure[]> {
  const { preview, run } = await bringIn(server, 'first.csv');
  return [
    { what: `import of ${COUNT} cases in ${COUNT * STEPS} rows, upload and preview`, ms: preview, budget: 5_000 },
    { what: 'the same cases, run', ms: run, budget: 10_000 },
  ];
}

async function replacing(server: StartedServer): Promise<Figure[]> {
  const search = (text: string, isPattern: boolean) => ({ text, replacement: 'gauge', isPattern, matchCase: false, wholeWords: false, inNames: false });
  const parts = ['title', 'text', 'steps', 'expected', 'data'];
  const look = async (text: string, isPattern: boolean): Promise<FoundPlaces> => (await server.post(`/projects/${KEY}/artefacts/places`, { of: { everything: true }, search: search(text, isPattern), parts, skip: 0 })) as FoundPlaces;
  await look('warm', false);
  const some = await timed(() => look('meter 77 ', false));
  const all = await timed(() => look('meter', false));
  const pattern = await timed(() => look('step [56]$', true));
  const { revision } = await look('meter', false);
  const replace = await timed(() => server.post(`/projects/${KEY}/artefacts/many`, { of: { kind: 'case', query: 'priority:high module:"Module 1"' }, done: { kind: 'replace', search: search('meter', false), parts, without: [], asOf: revision }, detail: randomUUID() }));
  return [
    { what: `words that few of ${2 * COUNT} cases have, found in all texts`, ms: some, budget: 2_000 },
    { what: 'words that every one of them has', ms: all, budget: 2_000 },
    { what: 'a pattern in all of them', ms: pattern, budget: 2_000 },
    { what: 'replaced in those of eleven modules', ms: replace, budget: 5_000 },
  ];
}

async function exporting(server: StartedServer): Promise<Figure[]> {
  const save = async (format: string, layout: string): Promise<number> =>
    timed(async () => {
      const body = JSON.stringify({ of: { kind: 'case', query: '' }, format, layout, figures: false, sheets: true, files: false });
      const response = await fetch(`${server.origin}/api/v1/projects/${KEY}/cases/export`, { method: 'POST', headers: { cookie: server.cookie, 'content-type': 'application/json' }, body });
      if (!response.ok) throw new Error(`The export answered ${response.status}: ${await response.text()}`);
      await response.arrayBuffer();
    });
  return [
    { what: `export of ${2 * COUNT} cases as CSV, a row a step`, ms: await save('csv', 'stepRows'), budget: 10_000 },
    { what: 'the same as a workbook, a sheet a module', ms: await save('xlsx', 'caseRows'), budget: 10_000 },
    { what: 'the same as JSON', ms: await save('json', 'stepRows'), budget: 10_000 },
  ];
}

process.exitCode = report(await caseFileFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
