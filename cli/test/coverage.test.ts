import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_SUITE, entryId } from '@caderno/core/suites';
import { condition, makeDatabase, makeProject, requirement, startServer, testCase, type TestServer } from '../../server/test/harness.ts';
import { run } from '../src/run.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let listening: Awaited<ReturnType<TestServer['listen']>>;
let [token, folder] = ['', ''];

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  listening = await server.listen();
  const people = await makeProject(server.db, 'shares');
  await makeProject(server.db, 'empty');
  const analyst = server.as(people.analyst);
  const covering = (title: string, id: `K-${number}`, shows: boolean) => testCase({ title, covers: [{ ...newCover(id, 1), expects: shows ? [stepId('a')] : [] }], steps: [plainStep(stepId('a'), 'read it', 'it is taken')] });
  const beginnings = [
    requirement({ title: 'Readings', module: 'Meters', rating: { likelihood: 2, impact: 2 } }), requirement({ title: 'Bills', module: 'Bills & more' }), requirement({ title: 'Nobody looked' }),
    condition(['R-1'], { title: 'one' }), condition(['R-1'], { title: 'two' }), condition(['R-2'], { title: 'three' }),
    covering('shows', 'K-1', true), covering('claims', 'K-2', false), covering('shows too', 'K-3', true),
    { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [{ kind: 'member', id: entryId('m1'), of: 'C-1', pinned: null, runsIn: null }] } } as const,
  ];
  for (const body of beginnings) expect((await analyst('createArtefact', { params: { project: 'shares' } as never, body })).status).toBe(200);
  token = (await analyst('makeToken', { body: { name: 'pipeline', project: 'shares', scope: 'read', days: 1 } })).data.token;
  folder = await mkdtemp(join(tmpdir(), 'caderno-cli-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
  await listening.close();
  await server.close();
  await database.drop();
});

/** Runs the command; answers its exit code and what it printed, complaints too. */
function coverage(...args: readonly string[]): Promise<readonly [number, string]> {
  return command('coverage', ...args);
}

async function command(...args: readonly string[]): Promise<readonly [number, string]> {
  const lines: string[] = [];
  const print = (line: string): void => void lines.push(line);
  const code = await run(args, { env: { CADERNO_SERVER: listening.origin, CADERNO_PROJECT: 'shares', CADERNO_TOKEN: token }, print, complain: print });
  return [code, lines.join('\n')];
}

const UNANALYSED = '1 of 3 requirements are not analysed yet: nothing of them is counted.';

test('a pipeline is told what the page tells, with a token that reads, and fails when less is shown than asked for', async () => {
  expect(await coverage()).toEqual([0, `The project: 66 % shown, 2 of 3 coverage items; 100 % with items that are only linked.\n${UNANALYSED}`]);
  expect((await coverage('--shown', '66.66', '--linked', '100'))[0]).toBe(0);
  expect(await coverage('--shown', '66.67')).toEqual([1, expect.stringMatching(/\nAsked for: 66\.67 % shown\. 1 more items would do\.$/)]);
  expect(await coverage('--analysed')).toEqual([1, expect.stringMatching(/\nAsked for: every requirement analysed\.$/)]);
});

test('of a risk, a module or a suite; what is not there is told with what there is', async () => {
  expect((await coverage('--risk', 'high', '--shown', '51'))[0]).toBe(1);
  expect(await coverage('--risk', 'high', '--shown', '50')).toEqual([0, `high risk: 50 % shown, 1 of 2 coverage items; 100 % with items that are only linked.\n${UNANALYSED}`]);
  expect((await coverage('--module', 'Bills & more', '--shown', '100'))[0]).toBe(0);
  expect(await coverage('--suite', 'U-1')).toEqual([0, expect.stringContaining('U-1: 33 % shown, 1 of 3 coverage items')]);
  expect(await coverage('--risk', 'low', '--shown', '0')).toEqual([1, `low risk: nothing to show yet.\n${UNANALYSED}\nAsked for: 0 % shown. There is nothing to show yet.`]);
  expect(await coverage('--suite', 'U-7')).toEqual([2, 'There is no suite U-7. There are: U-1 Smoke.']);
  expect(await coverage('--module', 'Bills')).toEqual([2, 'There is no module Bills with requirements. There are: Meters, Bills & more.']);
  expect(await coverage('--module', 'Meters', '--risk', 'low')).toEqual([2, 'Say one of --risk, --module and --suite.']);
  expect(await coverage('--risk', 'enormous')).toEqual([2, '--risk is high, medium or low, not enormous.']);
  expect(await coverage('--shown', 'most')).toEqual([2, '--shown is a percentage from 0 to 100, as 80 or 79.5, not most.']);
});

test('a badge is written where one wants it, also when too little is shown; where it cannot be, that is told', async () => {
  const file = join(folder, 'coverage.svg');
  expect((await coverage('--module', 'Bills & more', '--shown', '100', '--badge', file))[0]).toBe(0);
  expect(await readFile(file, 'utf8')).toContain('<title>coverage, Bills &amp; more: 100 %</title>');
  expect(await coverage('--shown', '90', '--badge', file)).toEqual([1, expect.stringContaining(`The badge stands in ${file}.`)]);
  expect(await readFile(file, 'utf8')).toContain('<title>design coverage: 66 %</title>');
  expect(await coverage('--badge', join(folder, 'nowhere', 'x.svg'))).toEqual([2, expect.stringContaining('could not be written')]);
});

test('another project than the one of the token is not told of', async () => {
  const lines: string[] = [];
  const code = await run(['coverage', '--project', 'empty'], { env: { CADERNO_SERVER: listening.origin, CADERNO_TOKEN: token }, print: (l) => lines.push(l), complain: (l) => lines.push(l) });
  expect([code, lines.join('').length > 0]).toEqual([2, true]);
});

test('the report as a page and as Markdown; what it cannot be, or be held against, is said', async () => {
  const [page, text] = [join(folder, 'report.html'), join(folder, 'report.md')];
  expect(await command('report', page, '--note', 'It <goes> well')).toEqual([0, `The report stands in ${page}.`]);
  expect(await readFile(page, 'utf8')).toMatch(/^<!doctype html>.*It &#x3C;goes> well.*66 %.*R-3 Nobody looked/s);
  expect((await command('report', text))[0]).toBe(0);
  expect(await readFile(text, 'utf8')).toMatch(/^# Design coverage of .*\n\n## The worst gaps\n.*\| R-1 Readings +\| Meters +\| High risk +\| 1 of 2: 1 linked only +\|/s);
  expect(await command('report', join(folder, 'report.docx'))).toEqual([2, expect.stringMatching(/^The report is written as \.html or \.md, not as/)]);
  expect(await command('report', text, '--since', 'yesterday')).toEqual([2, '--since is a baseline, as B-2, not yesterday.']);
  expect(await command('report', text, '--since', 'B-7')).toEqual([2, expect.stringMatching(/baseline/)]);
  expect(await command('report', join(folder, 'none', 'report.md'))).toEqual([2, expect.stringMatching(/^The report could not be written/)]);
});
