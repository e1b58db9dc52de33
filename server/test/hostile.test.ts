import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { USUAL_PACE, API_ROOT, DEFAULT_SETTINGS, api, bytesBody, type AnyEndpoint, type Operation } from '@caderno/contract';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { z } from 'zod';
import { checkData } from '../src/upkeep/index.ts';
import { hostileBodies } from './hostileBodies.ts';
import { condition, makeDatabase, makeProject, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url, { mail: { server: 'smtp://127.0.0.1:9', from: 'c@notes.example', address: 'https://notes.example', page: null } });
  project = await makeProject(server.db);
  call = server.as(project.analyst);
  for (const title of ['R', 'S', 'T']) await call('createArtefact', { body: requirement({ title }) });
  await call('createArtefact', { body: condition(['R-1']) });
  await call('createArtefact', { body: WHOLE_CASE });
  await call('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S', steps: [plainStep(stepId('x'), 'a')] } } });
  await call('createArtefact', { body: { kind: 'dataSet', content: { title: 'D', purpose: '', parameters: [], rows: [], serves: [], module: '', tags: [], own: {} } } });
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const parameter = { id: 'p', name: 'n', type: 'text', default: '', description: '' };
const row = { id: 'r', name: 'one', description: '', cells: { p: '5' }, mark: null, aside: false };
const WHOLE_CASE = testCase({
  steps: [plainStep(stepId('a'), 'go <n>'), plainStep(stepId('b'), 'see')],
  parameters: [parameter] as never,
  rows: [row] as never,
  covers: [newCover('K-1', 1)],
  tags: ['t'],
  defects: [{ id: 'd', title: 't', link: 'https://x.example' }],
});
const FIELD = { id: 'f', name: 'f', type: { kind: 'whole' }, unit: '', required: true, intervals: [{ id: 'i', valid: true, outcome: '', name: '', from: '1', to: '9' }], choices: [], patterns: [], classes: [] };
const RANGES = condition(['R-1'], { model: { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [FIELD] }, leftOut: [{ id: 'k', reason: 'r', by: 'b', at: '2026-11-27T00:00:00Z' }] });
const FACTOR = (id: string) => ({ id, name: id, values: [{ id: 'v', value: 'v', aliases: [], valid: true, base: false, outcome: '' }] });
const COMBINATION = condition(['R-1'], { model: { kind: 'combination', factors: [FACTOR('x'), FACTOR('y')], constraints: [{ id: 'c', text: 'if x = v then y = v' }], strength: 'pairs', groups: [], seed: 1 } });
const QUESTION = { kind: 'question', content: { title: 'Q', text: '', asked: '', attachments: [], about: [{ kind: 'requirement', id: 'R-1', words: 'w', holds: true }], status: 'open', answer: '', answeredBy: '', answeredAt: '', settledIn: [], observations: [], own: {} } };
const DATA = { kind: 'dataSet', content: { title: 'D', purpose: '', parameters: [parameter], rows: [row], serves: [{ id: 'K-1', seenVersion: 1, fields: [], outcome: null }], module: '', tags: [], own: {} } };
const SUITE = { kind: 'suite', content: { title: 'U', purpose: '', folder: 'f/g', entries: [{ kind: 'part', id: 'p', title: 'P', depth: 1, rule: { of: 'cases', asks: 'tag:t or (', pinned: 'agreed' }, runsIn: null }, { kind: 'part', id: 'q', title: 'Q', depth: 2, rule: { of: 'scenarios', asks: '@a', pinned: null }, runsIn: ['k1'] }, { kind: 'member', id: 'm', of: 'C-1', pinned: 1, runsIn: null }, { kind: 'member', id: 'n', of: 'C-1', pinned: null, runsIn: [] }], configurations: ['k1'], module: '', owner: '', tags: ['t'], own: {} } };
const reading = { encoding: null, separator: null, sheet: null, header: null };
const mapping = { source: 's', columns: { id: 'id' } };

/** A body that is taken, or nearly, of every operation that has one. */
const BODIES: Partial<Record<Operation, readonly object[]>> = {
  // These go through all there is: they come before what makes it many.
  findPlaces: [
    { of: { everything: true }, search: { text: '(((a{9}){9}){9}){9}', replacement: '$9$$', isPattern: true, matchCase: false, wholeWords: true, inNames: true }, parts: ['title', 'text', 'steps', 'expected', 'data'], skip: 0 },
  ],
  changeMany: [
    { of: { everything: true }, done: { kind: 'replace', search: { text: 'a', replacement: '\u202e', isPattern: false, matchCase: false, wholeWords: false, inNames: false }, parts: ['title'], without: [{ id: 'C-1', paths: ['__proto__'] }], asOf: 0 }, detail: '' },
    { of: { ids: ['R-1', 'C-1'] }, done: { kind: 'edit', edit: { kind: 'rating', part: 'impact', step: 1 } }, detail: 'd' },
    { of: { kind: 'case', query: 'title' }, done: { kind: 'clone', parts: ['rows'], sets: [[{ from: 'a', to: 'b' }]] }, detail: 'd' },
    { of: { ids: ['K-1'] }, done: { kind: 'edit', edit: { kind: 'derivedFrom', requirement: 'R-2', seenVersion: 1, insteadOf: 'R-1' } }, detail: 'd' },
    { of: { ids: ['C-1'] }, done: { kind: 'edit', edit: { kind: 'pins', of: 'S-1', version: 1 } }, detail: 'd' },
    { of: { ids: ['C-1'] }, done: { kind: 'edit', edit: { kind: 'uses', of: 'D-1', pinned: null } }, detail: 'd' },
    { of: { ids: ['F-1'] }, done: { kind: 'edit', edit: { kind: 'writtenFor', requirement: 'R-2', seenVersion: 1, belongs: true, tags: '@a and not @b' } }, detail: 'd' },
  ],
  measureSuite: [{ entries: SUITE.content.entries, configurations: ['k1', 'k2'] }],
  readShowing: [{ entries: SUITE.content.entries, configurations: ['k1'] }],
  previewHandOff: [{ of: { suite: 'U-1' }, configurations: [] }, { of: { baseline: 1 }, configurations: ['k1'] }],
  makeHandOff: [{ of: { suite: 'U-1' }, configurations: [], name: 'n', note: '', due: '2031-01-31', leftOut: ['C-1'], people: ['Rui M.', 'A. N. Other'], dividing: 'modules', chosen: [{ of: 'C-1', configuration: null, person: '' }] }, { of: { baseline: 1 }, configurations: ['k1'], name: 'n', note: 'm', due: null, leftOut: [], people: [], dividing: 'evenly', chosen: [] }],
  findTouched: [{ ids: ['R-1', 'S-1'] }, { from: 1, to: null }],
  readCandidates: [{ risk: 'high', depth: 'core', requirements: ['R-1'] }],
  findAdditions: [{ entries: SUITE.content.entries, configurations: [], risk: 'high', requirement: 'R-1', condition: 'K-1' }],
  signIn: [{ email: 'a@b.example', password: 'x' }, { demoPerson: randomUUID() }],
  setUp: [{ name: 'X', email: 'a@b.example', password: 'long enough to take', word: 'w' }],
  resetPassword: [{ token: 't'.repeat(43), password: 'long enough to take' }],
  changePassword: [{ current: 'x', next: 'long enough to take' }],
  beginThread: [{ remark: randomUUID(), place: { path: 'text', words: { quote: 'reading', start: 2, before: 'A ', after: ' is' } }, said: 'reading', version: 1, text: 'Which?', offer: 'count' }],
  answerRemark: [{ remark: randomUUID(), text: 'The last.' }],
  rewordRemark: [{ text: 'Which one?' }],
  takeOffer: [{ version: 1 }],
  settleThread: [{ settled: true }],
  openMoment: [{}],
  openPart: [{}],
  countTrend: [{}],
  sendByMail: [{ to: [{ address: 'a@b.example' }, { person: randomUUID() }], of: { what: 'artefact', id: 'C-1' }, note: 'n' }, { to: [{ address: 'a@b.example' }], of: { what: 'list', kind: 'case', query: 'is:draft (' }, note: '' }, { to: [{ address: 'a@b.example' }], of: { what: 'handOff', number: 1, person: 'Rui M.' }, note: '' }],
  sendMailAgain: [{}],
  sendTrialMail: [{}],
  invite: [{ email: 'a@b.example', role: 'reader' }],
  makeReadLink: [{ id: 'C-1', forWhom: 'n', days: 7 }],
  openReadLink: [{ token: 't'.repeat(43) }],
  openInvitation: [{ token: 't'.repeat(43) }],
  acceptInvitation: [{ token: 't'.repeat(43), name: 'n', password: 'long enough to take' }],
  forgetPassword: [{ email: 'a@b.example' }],
  changeName: [{ name: 'Another' }],
  changeEmail: [{ email: 'a@b.example', password: 'p' }],
  confirmEmail: [{ token: 't'.repeat(43) }],
  markInbox: [{ of: { everything: true }, read: true }],
  saveInboxChoices: [{ silent: ['changed'], mail: USUAL_PACE }],
  follow: [{ follows: true }],
  planBringBack: [{ of: { ids: ['R-1'] } }],
  bringBack: [{ of: { everything: true, withdraw: true } }],
  takeBaseline: [{ name: 'Before', note: '', of: { ids: ['R-1'] } }],
  askReview: [{ title: 'Readings', note: '', due: '2026-12-24', people: [randomUUID()], ids: ['R-1'] }],
  changeReview: [{ title: 'Readings', note: '', due: null, people: [randomUUID()] }],
  answerReview: [{ of: [{ id: 'R-1', version: 1 }], agrees: false, note: 'Which one?' }],
  askAgain: [{ ids: ['R-1'] }],
  endReview: [{}],
  saveQuery: [{ kind: 'case', name: 'n', query: 'state:draft', everybody: true, counts: { down: 'module', across: 'own:f', measure: 'minutes', as: 'bars' } }],
  saveListView: [{ group: 'module', sort: { column: 'updated', descending: true }, columns: [{ column: 'id', width: null }, { column: 'title', width: 300 }] }],
  createProject: [{ key: 'p', name: 'P' }],
  addMember: [{ name: 'X', email: 'x@example.org', password: 'long enough to be one', role: 'reader' }],
  joinMember: [{ email: 'nobody@b.example', role: 'reader' }],
  changeRole: [{ role: 'reader' }],
  changeSeenModules: [{ sees: ['Meters'] }, { sees: null }],
  changeAccount: [{ active: true, administrator: false }],
  makeResetLink: [{}],
  saveOutsideHosts: [{ hosts: ['x.example'] }],
  revealConstant: [{ configuration: null }],
  saveSettings: [{ ...DEFAULT_SETTINGS, glossary: [{ id: 't', term: 't', forms: ['f'], definition: 'd' }], constants: [{ id: 'c', name: 'c', value: 'v', secret: true, description: '', others: { k: 'v' } }], configurations: [{ id: 'k', name: 'k', factors: [{ name: 'n', value: 'v' }] }], tracker: { kind: 'storyboard', address: 'https://x.example', project: 'p' } }],
  createArtefact: [requirement({ relations: [{ id: 'r', kind: 'k', to: 'R-2' }], attributes: [{ id: 'a', value: 'v' }] }), WHOLE_CASE, RANGES, COMBINATION, QUESTION, DATA, SUITE, { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S', steps: [{ kind: 'call', id: 'u', case: 'C-1', rows: { kind: 'chosen', rows: ['r'] }, pinned: 1, arguments: [{ id: 'n', value: 'v' }] }] } }],
  writeArtefacts: [{ made: [{ ...condition(['R-1']), under: null }], changed: [{ id: 'R-1', version: 1, ...requirement() }], withdrawn: ['R-3'], detail: 'd' }],
  saveArtefact: [{ ...requirement(), note: 'n', keepsDraft: true }],
  keepDraft: [{ ...requirement(), base: 1, sequence: 1 }],
  restoreVersion: [{ version: 1 }],
  setState: [{ state: 'draft' }],
  moveRequirement: [{ parent: 'R-2', after: null }],
  findRuns: [{ steps: [plainStep(stepId('a'), 'go')], except: 'C-1' }],
  takeOut: [{ shared: { ...EMPTY_SHARED, title: 'Out', steps: [plainStep(stepId('y'), 'a')] }, users: [{ kind: 'case', id: 'C-1', version: 1, content: WHOLE_CASE.content, uses: [{ at: 0, step: 'z', arguments: [{ id: 'n', value: 'v' }] }] }] }],
  renameParameter: [{ owner: { kind: 'case', id: 'C-1', version: 1, content: WHOLE_CASE.content }, from: 'n', to: 'm', apply: false }],
  undoChange: [{}],
  splitRequirement: [{ parts: [{ title: 'A', text: 'a' }, { title: 'B', text: 'b' }], conditions: { 'K-1': 1 }, questions: {}, children: { 'R-2': 1 } }],
  mergeRequirements: [{ title: 'M', text: 'm', absorbed: ['R-2'] }],
  settleSuspectLinks: [{ links: [{ from: 'K-1', to: 'R-1', now: 1 }] }],
  fetchStories: [{}],
  checkTracker: [{}],
  rereadImport: [{ mapping, reading }],
  previewImport: [{ mapping, reading }],
  rereadCases: [{ mapping: { source: 's', columns: { a: 'title', '__proto__': 'leave' }, layout: 'caseRows', headings: true, module: '' }, reading }],
  previewCases: [{ mapping: { source: 's', columns: { a: 'own:f' }, layout: 'stepRows', headings: false, module: 'm' }, reading }],
  runCases: [{ mapping: { source: 's', columns: {}, layout: 'stepRows', headings: false, module: '' }, reading, choices: { 'C-1 title': { own: 'x' } } }],
  readAlong: [{ of: { ids: ['C-1', 'K-999999999', 'Q-1'] } }, { of: { everything: true } }],
  exportDesign: [{ of: { everything: true }, files: true, form: 'file' }, { of: { ids: ['S-1'] }, files: false, form: 'schema' }],
  findPhraseUses: [{ keys: ['a {} b'] }],
  makeToken: [{ name: 'n', project: 'p', scope: 'write', days: 1 }],
  exportFeatures: [{ of: { everything: true }, form: 'zip' }, { of: { ids: ['F-1'] } }],
  runFeatures: [{ choices: { 'F-1': 'theirs' } }],
  runDesign: [{ choices: { 'C-1': 'theirs', 'R-2': 'mine' } }],
  exportCases: [
    { of: { ids: ['R-1', 'C-999999999'] }, format: 'json', layout: 'stepRows', figures: true, sheets: true, files: true },
  ],
  runImport: [{ mapping, reading, choices: { 'R-1 title': 'mine' } }],
};

/** What the contract does not take is refused at one place, before any operation: of those a few stand for all. */
const EVERY_REFUSED = 40;
/** Of what it takes each place is sent every third, the next place the next ones; another seed (CADERNO_SEED) begins with another. */
const EVERY_TAKEN = 3;
const FIRST = Number(process.env.CADERNO_SEED ?? 20);
function isTaken(endpoint: AnyEndpoint, hostile: unknown): boolean {
  return endpoint.body.safeParse(hostile).success;
}

const operations = Object.entries<AnyEndpoint>(api) as [Operation, AnyEndpoint][];

async function send(endpoint: AnyEndpoint, body: string | null, parameter = (name: string): string => PARAMETERS[name] ?? 'x', query = ''): Promise<{ status: number; text: string }> {
  const path = endpoint.path.replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(parameter(name)));
  const response = await server.fetch(`${API_ROOT}${path}${query}`, { method: endpoint.method, headers: { cookie: `caderno_session=${project.administrator}`, 'content-type': 'application/json', 'if-match': '"1"' }, body });
  return { status: response.status, text: await response.text() };
}
const PARAMETERS: Record<string, string> = { project: 'p', revision: '1', id: 'R-1', version: '1', change: randomUUID(), import: randomUUID(), attachment: '0'.repeat(64), requirement: 'R-1', constant: 'c', person: randomUUID(), session: randomUUID(), token: randomUUID(), remark: randomUUID(), review: '1', baseline: '1', handOff: '1', moment: '1', mail: randomUUID(), invitation: randomUUID(), link: randomUUID() };

describe('every operation, sent what nobody should send', () => {
  test('is known to this walk', () => {
    const unknown = operations.filter(([name, e]) => e.method !== 'GET' && !(e.body instanceof z.ZodUndefined) && e.body !== bytesBody && BODIES[name] === undefined);
    expect(unknown.map(([name]) => name)).toEqual([]);
  });

  let sent = 0;
  test('each body that others are made of is one that the contract takes', () => {
    const refused = operations.flatMap(([name, { body }]) => (BODIES[name] ?? []).flatMap((sent, i) => {
      const read = body.safeParse(sent);
      return read.success ? [] : [`${name} ${i}: ${read.error.issues.map((issue) => `${issue.path.join('/')} ${issue.message}`).join('; ')}`];
    }));
    expect(refused).toEqual([]);
  });

  test.each(operations.flatMap(([name, endpoint]) => (BODIES[name] ?? []).map((body, i) => [`${name} ${i}`, endpoint, body] as const)))('%s answers or refuses each, and never fails', async (_, endpoint, body) => {
    const failed: string[] = [];
    const look = async ([place, hostile]: readonly [string, unknown]): Promise<void> => {
      sent += 1;
      const answer = await send(endpoint, JSON.stringify(hostile));
      if (answer.status >= 500 && answer.status !== 502) failed.push(`${place}: ${answer.status} ${answer.text.slice(0, 200)}`);
    };
    const all = [...hostileBodies(body as never)].filter(([, hostile], i) => (i + FIRST) % (isTaken(endpoint, hostile) ? EVERY_TAKEN : EVERY_REFUSED) === 0);
    // Some at once, as strangers would.
    for (let at = 0; at < all.length; at += 6) await Promise.all(all.slice(at, at + 6).map(look));
    expect(failed).toEqual([]);
  });

  test('addresses and queries are no better', async () => {
    const values = ['', ' ', '\0', '\ud800', 'R-999999999', 'K-1', '-1', '99999999999999', 'x'.repeat(5_000), '..', '%', "' OR 1=1", randomUUID()];
    const failed: string[] = [];
    for (const [name, endpoint] of operations) {
      const query = endpoint.query instanceof z.ZodObject ? Object.keys(endpoint.query.shape) : [];
      for (const value of values.map((v) => v.toWellFormed())) {
        for (const parameter of (endpoint.path.match(/:(\w+)/g) ?? []).map((p) => p.slice(1)).filter((p) => p !== 'project')) {
          const { status, text } = await send(endpoint, endpoint.method === 'GET' ? null : '{}', (n) => (n === parameter ? value : (PARAMETERS[n] ?? 'x')));
          if (status >= 500) failed.push(`${name} :${parameter} = ${value.slice(0, 20)}: ${text.slice(0, 200)}`);
        }
        for (const part of query) {
          const { status, text } = await send(endpoint, endpoint.method === 'GET' ? null : '{}', undefined, `?${new URLSearchParams({ kind: 'case', format: 'csv', words: 'x', uses: 'S-1', [part]: value }).toString()}`);
          if (status >= 500 && status !== 502) failed.push(`${name} ?${part} = ${value.slice(0, 20)}: ${text.slice(0, 200)}`);
        }
      }
    }
    expect(failed).toEqual([]);
  });

  test('and leaves everything readable', async () => {
    expect(sent).toBeGreaterThan(1_000);
    const { checked, faults } = await checkData(server.db);
    expect([checked > 100, faults]).toEqual([true, []]);
    const read = await Promise.all((['requirement', 'condition', 'case', 'question', 'shared', 'dataSet'] as const).map((kind) => call('listArtefacts', { query: { kind } })));
    expect(read.map((r) => r.status)).toEqual([200, 200, 200, 200, 200, 200]);
    expect((await call('readCoverage')).data.broken).toEqual([]);
    for (const id of read.flatMap((r) => r.data.slice(0, 40)).map((s) => s.id)) expect([id, (await call('readArtefact', { params: { id } })).status]).toEqual([id, 200]);
  });
});
