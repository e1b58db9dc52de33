import { randomUUID } from 'node:crypto';
import { API_ROOT, type ResponseOf } from '@caderno/contract';
import { createBenchServer, type BenchServer } from '@caderno/server/bench';
import { fillLarge } from './fillLarge.ts';
import { p95, report, timed, type Figure } from './measure.ts';

const REVIEWED = 500;

/** Reviews and baselines of a project of 2 000 requirements, 10 000 conditions, 20 000 cases. */
export async function agreementFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await createBenchServer(databaseUrl);
  try {
    const ask = asking(server, token);
    return [...(await reviewing(ask)), ...(await seeing(server, ask)), ...(await freezing(ask))];
  } finally {
    await server.close();
  }
}

type Ask = (method: string, path: string, body?: object, headers?: Readonly<Record<string, string>>) => Promise<unknown>;

function asking(server: BenchServer, token: string): Ask {
  return async (method, path, body, headers = {}) => {
    const response = await server.fetch(`${API_ROOT}/projects/large${path}`, {
      method,
      headers: { cookie: `caderno_session=${token}`, 'content-type': 'application/json', 'command-id': randomUUID(), ...headers },
      body: body === undefined ? null : JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
    return response.json();
  };
}

async function reviewing(ask: Ask): Promise<Figure[]> {
  const { version, settings } = (await ask('GET', '/settings')) as ResponseOf<'readSettings'>;
  await ask('PUT', '/settings', { ...settings, agreement: { ...settings.agreement, authors: true } }, { 'if-match': `"${version}"` });
  const [member] = (await ask('GET', '/members')) as ResponseOf<'listMembers'>;
  const ids = Array.from({ length: REVIEWED }, (_, i) => `C-${i + 1}`);
  const asked = await timed(() => ask('POST', '/reviews', { title: 'All of it', note: '', due: null, people: [member?.id], ids }));
  const opened = await p95(20, () => ask('GET', '/reviews/1'));
  const listed = await p95(20, () => ask('GET', '/reviews'));
  const answered = await timed(() => ask('POST', '/reviews/1/answers', { of: ids.slice(1).map((id) => ({ id, version: 1 })), agrees: true, note: '' }));
  return [
    { what: `a review of ${REVIEWED} cases opened`, ms: opened, budget: 500 },
    { what: 'the list of reviews', ms: listed, budget: 100 },
    { what: `${REVIEWED} cases asked for`, ms: asked, budget: 2_000 },
    { what: `${REVIEWED - 1} of them agreed at once`, ms: answered, budget: 2_000 },
  ];
}

/** Half of the project, as somebody reads it who sees ten of its modules. */
async function seeing(server: BenchServer, ask: Ask): Promise<Figure[]> {
  const [token = ''] = await server.people('large', 1, 'reader');
  const member = ((await ask('GET', '/members')) as ResponseOf<'listMembers'>).find((m) => m.role === 'reader');
  await ask('PUT', `/members/${member?.id}/sees`, { sees: Array.from({ length: 10 }, (_, i) => `Module ${i + 1}`) });
  const reader = asking(server, token);
  const open = () => reader('POST', '/part', {});
  const made = await timed(open);
  const again = await p95(5, open);
  const retitle = (ids: readonly string[]) => ask('POST', '/artefacts/many', { of: { ids }, done: { kind: 'edit', edit: { kind: 'title', title: 'Another title' } }, detail: 'retitled' });
  // The last modules have the last cases.
  await retitle(Array.from({ length: 500 }, (_, i) => `C-${19_001 + i}`));
  const elsewhere = await timed(open);
  await retitle(['C-1']);
  const anew = await timed(open);
  return [
    { what: 'half of the project made ready for who sees no more', ms: made, budget: 10_000 },
    { what: 'their part opened again, when nothing was done', ms: again, budget: 200 },
    { what: 'opened after 500 cases changed elsewhere', ms: elsewhere, budget: 200 },
    { what: 'made ready anew after one of it changed', ms: anew, budget: 10_000 },
  ];
}

async function freezing(ask: Ask): Promise<Figure[]> {
  // The coverage of the moment is part of it, and known while anybody has the project open.
  await ask('GET', '/coverage/rows');
  const first = await timed(() => ask('POST', '/baselines', { name: 'First', note: '', of: { everything: true } }));
  await ask('POST', '/artefacts/many', { of: { ids: Array.from({ length: 2_000 }, (_, i) => `C-${i * 5 + 2}`) }, done: { kind: 'edit', edit: { kind: 'title', title: 'Another title' } }, detail: 'retitled' });
  const second = await timed(() => ask('POST', '/baselines', { name: 'Second', note: '', of: { everything: true } }));
  const compared = await p95(5, () => ask('GET', '/baselines/1/changes?to=2'));
  const now = await p95(5, () => ask('GET', '/baselines/1/changes'));
  const checked = await timed(() => ask('GET', '/baselines/1/check'));
  const made = await timed(() => ask('POST', '/moments/B-1', {}));
  const openedAgain = await p95(5, () => ask('POST', '/moments/B-1', {}));
  const { figures } = (await ask('GET', '')) as ResponseOf<'readProject'>;
  const lookedBack = await timed(() => ask('POST', `/moments/${figures.revision - 2}`, {}));
  const agreed = await timed(() => ask('POST', `/moments/${figures.revision}-agreed`, {}));
  const back = { of: { everything: true, withdraw: true } };
  const planned = await timed(() => ask('POST', '/baselines/1/back/plan', back));
  const broughtBack = await timed(() => ask('POST', '/baselines/1/back', back));
  return [
    { what: 'a baseline of everything, the first', ms: first, budget: 5_000 },
    { what: 'another after 2 000 cases changed', ms: second, budget: 5_000 },
    { what: 'two baselines compared', ms: compared, budget: 2_000 },
    { what: 'one compared with now', ms: now, budget: 2_000 },
    { what: 'its seal checked, every content read', ms: checked, budget: 10_000 },
    { what: 'a baseline made ready to be read as the project', ms: made, budget: 10_000 },
    { what: 'the same opened again', ms: openedAgain, budget: 100 },
    { what: 'a moment of the journal made ready, 2 000 cases changed since', ms: lookedBack, budget: 10_000 },
    { what: 'what is agreed made ready, with the moment it is told from', ms: agreed, budget: 20_000 },
    { what: 'what bringing 2 000 cases back would change', ms: planned, budget: 2_000 },
    { what: 'they are brought back', ms: broughtBack, budget: 10_000 },
  ];
}

if (process.argv[1]?.endsWith('agreement.bench.ts')) process.exitCode = report(await agreementFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
