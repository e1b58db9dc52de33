import { readFile as readDocument, guessMapping, entriesOf, exportTable, writeXlsx, writeReqif, writeMarkdown, exportSections, type ExportedRequirement, GUESS_ALL } from '@caderno/core/exchange';
import { FIRST_PRIORITIES } from '@caderno/core/artefacts';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import type { ImportDraft } from '@caderno/contract';
import { largeCsv, largeTexts } from './largeBasis.ts';
import { p95, report, timed, type Figure } from './measure.ts';
import { startServer } from './startedServer.ts';

const COUNT = 10_000;
const KEY = 'imported';

/** An import of 10 000 requirements through a server as it is started, with the most memory it ever took. */
async function importFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl);
  try {
    await server.makeProject(KEY);
    const csv = Buffer.from(largeCsv(COUNT, 4711));
    let draft: ImportDraft | null = null;
    let counts: unknown = null;
    const preview = await timed(async () => {
      draft = (await server.post(`/projects/${KEY}/imports?name=register.csv`, csv)) as ImportDraft;
      counts = ((await server.post(`/projects/${KEY}/imports/${draft.id}/preview`, stepOf(draft))) as { counts: { added: number } }).counts;
    });
    if (draft === null || (counts as { added: number }).added !== COUNT) throw new Error(`All is new: expected ${COUNT}, got ${JSON.stringify(counts)}`);
    const file: ImportDraft = draft;
    // Somebody else keeps reading meanwhile.
    const meanwhile: number[] = [];
    let running = true;
    const others = (async () => {
      while (running) meanwhile.push(await timed(() => server.get(`/projects/${KEY}`)));
    })();
    const run = await timed(() => server.post(`/projects/${KEY}/imports/${file.id}/run`, { ...stepOf(file), choices: {} }));
    running = false;
    await others;
    meanwhile.sort((a, b) => a - b);
    const again = await timed(() => server.post(`/projects/${KEY}/imports/${file.id}/preview`, stepOf(file)));
    const outline = await p95(5, () => server.get(`/projects/${KEY}/artefacts?kind=requirement`));
    const move = await p95(10, (i) => server.post(`/projects/${KEY}/artefacts/R-${i * 10 + 3}/place`, { parent: `R-${i * 10 + 1}`, after: null }));
    return [
      { what: `import of ${COUNT} requirements, upload and preview`, ms: preview, budget: 5_000 },
      { what: 'the same, run', ms: run, budget: 10_000 },
      { what: 'reading the project for others meanwhile, p95', ms: meanwhile[Math.floor(meanwhile.length * 0.95)] ?? 0, budget: 150 },
      { what: 'preview of the same file again', ms: again, budget: 5_000 },
      { what: `the outline of ${COUNT} requirements over the API, p95`, ms: outline, budget: 1_000 },
      { what: 'moving a requirement in it, p95', ms: move, budget: 100 },
      { what: 'most memory the server took', ms: await server.mostMemory(), budget: 500, unit: 'MB' },
    ];
  } finally {
    await server.stop();
  }
}

function stepOf(draft: ImportDraft): Pick<ImportDraft, 'mapping' | 'reading'> {
  return { mapping: draft.mapping, reading: draft.reading };
}

/** How long each format takes to be read and mapped, in the core alone. */
async function formatFigures(): Promise<Figure[]> {
  const requirements = largeTexts(COUNT, 12).map((text, i): ExportedRequirement => ({ id: `R-${i + 1}`, version: 1, parent: i % 10 === 0 ? null : `R-${i - (i % 10) + 1}`, depth: i % 10 === 0 ? 0 : 1, state: 'draft', content: { ...EMPTY_REQUIREMENT, title: `Requirement ${i + 1}`, text }, design: null }));
  const files: [string, Uint8Array][] = [
    ['basis.xlsx', await writeXlsx('Basis', exportTable('p', requirements, [], false))],
    ['basis.md', Buffer.from(writeMarkdown('p', exportSections('p', requirements)))],
    ['basis.reqif', Buffer.from(writeReqif({ project: 'p', title: 'p', at: '2026-01-01T00:00:00Z', requirements, fields: [], sources: new Map(), objects: new Map() }))],
  ];
  const figures: Figure[] = [];
  for (const [name, bytes] of files) {
    let read = 0;
    const ms = await timed(async () => {
      const document = await readDocument(name, bytes, GUESS_ALL);
      read = entriesOf(document, guessMapping(document, 'p', 's', [], null), { title: 300, name: 200, text: 200_000, relations: 500 }, [], FIRST_PRIORITIES).entries.length;
    });
    if (read < COUNT) throw new Error(`${name} is read whole: expected ${COUNT}, got ${read}`);
    figures.push({ what: `reading ${COUNT} requirements from ${name}`, ms, budget: 4_000 });
  }
  return figures;
}

const url = process.env.CADERNO_TEST_DATABASE;
if (url === undefined) throw new Error('Run it by npm run bench, which starts PostgreSQL');
process.exitCode = report([...(await formatFigures()), ...(await importFigures(url))]) ? 0 : 1;
