import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { EMPTY_CASE } from '@caderno/core/cases';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import { HOSTILE_FILES, type HostileFile } from './hostileFiles.ts';

/** What an attack may do: it holds a session of its own and a project of its own. */
export interface Attacker {
  readonly origin: string;
  readonly cookie: string;
  readonly project: string;
}

/** Attacks until it is through; answers in words how the server met it. */
export type Attack = (attacker: Attacker) => Promise<string>;

async function ask({ origin, cookie }: Attacker, method: string, path: string, body?: unknown): Promise<Response> {
  return fetch(`${origin}/api/v1${path}`, {
    method,
    headers: { cookie, 'content-type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json' },
    body: body === undefined ? null : body instanceof Uint8Array ? new Uint8Array(body) : JSON.stringify(body),
  });
}

const tally = (statuses: readonly (number | string)[]): string =>
  [...new Set(statuses)]
    .sort()
    .map((s) => `${statuses.filter((x) => x === s).length} × ${s}`)
    .join(', ');

/** Sends so many bytes as one body, as fast as they are taken; answers what came back, and how much was taken. */
function pour(origin: string, megabytes: number, headers: readonly string[]): Promise<string> {
  const { hostname, port, host } = new URL(origin);
  return new Promise((resolve) => {
    const socket = connect(Number(port), hostname);
    const chunk = Buffer.alloc(1024 * 1024, 0x20);
    let left = megabytes;
    let answer = '';
    const end = (): void => {
      socket.destroy();
      resolve(`${/^HTTP\/1.1 (\d+)/.exec(answer)?.[1] ?? 'cut off'}`);
    };
    const write = (): void => {
      while (left > 0) {
        left -= 1;
        socket.write(`${chunk.length.toString(16)}\r\n`);
        socket.write(chunk);
        if (!socket.write('\r\n')) return void socket.once('drain', write);
      }
      socket.write('0\r\n\r\n');
    };
    socket.on('data', (data) => (answer += String(data)));
    socket.on('error', end).on('close', end);
    socket.setTimeout(20_000, end);
    socket.write(`POST /api/v1/session HTTP/1.1\r\nHost: ${host}\r\nTransfer-Encoding: chunked\r\n${headers.join('\r\n')}\r\n\r\n`);
    write();
  });
}

async function strangersBodies({ origin }: Attacker): Promise<string> {
  const said = await Promise.all([300, 1_500, 1_500, 1_500].map((megabytes) => pour(origin, megabytes, ['Content-Type: application/json'])));
  return tally(said);
}

async function wrongPasswords(attacker: Attacker): Promise<string> {
  const said = await Promise.all(Array.from({ length: 150 }, () => ask({ ...attacker, cookie: '' }, 'POST', '/session', { email: 'owner@bench.example', password: randomUUID() })));
  return tally(said.map((r) => r.status));
}

/** Opens event streams and reads nothing of them while a project changes. */
async function deafReaders(attacker: Attacker): Promise<string> {
  const { hostname, port, host } = new URL(attacker.origin);
  const answers: string[] = [];
  const sockets = Array.from({ length: 100 }, () => {
    const socket = connect(Number(port), hostname);
    socket.on('error', () => undefined);
    socket.once('data', (data) => {
      answers.push(/^HTTP\/1.1 (\d+)/.exec(String(data))?.[1] ?? '?');
      socket.pause();
    });
    socket.write(`GET /api/v1/projects/${attacker.project}/events HTTP/1.1\r\nHost: ${host}\r\nCookie: ${attacker.cookie}\r\n\r\n`);
    return socket;
  });
  await sleep(1_000);
  for (let i = 0; i < 120; i += 1) await ask(attacker, 'POST', `/projects/${attacker.project}/artefacts`, requirement(`Told ${i}`));
  for (const socket of sockets) socket.destroy();
  return tally(answers);
}

const requirement = (title: string, part: object = {}): object => ({ kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title, ...part } });
const condition = (model: object): object => ({
  kind: 'condition',
  content: {
    ...EMPTY_CONDITION,
    title: 'Heavy',
    requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }],
    model,
  },
});

async function made(attacker: Attacker, body: object): Promise<string> {
  const response = await ask(attacker, 'POST', `/projects/${attacker.project}/artefacts`, body);
  if (!response.ok) throw new Error(`The attack could not be prepared: ${await response.text()}`);
  return ((await response.json()) as { summary: { id: string } }).summary.id;
}

async function heavyPatterns(attacker: Attacker): Promise<string> {
  await made(attacker, requirement('Heavy'));
  const fields = Array.from({ length: 14 }, (_, i) => ({
    id: `f${i}`,
    name: `f${i}`,
    type: { kind: 'textPattern' },
    unit: '',
    required: true,
    intervals: [],
    choices: [],
    patterns: [{ id: 'p', valid: true, outcome: '', name: 'p', pattern: '[a-y]{0,1000}', example: '' }],
    classes: [],
  }));
  const k = await made(attacker, condition({ kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields }));
  const content = {
    ...EMPTY_CASE,
    title: 'Heavy',
    parameters: fields.map((f) => ({ id: f.id, name: f.id, type: 'text', default: '', description: '' })),
    rows: Array.from({ length: 40 }, (_, i) => ({
      id: `r${i}`,
      name: '',
      description: '',
      cells: Object.fromEntries(fields.map((f) => [f.id, `${i}${'a'.repeat(15_000)}`])),
      mark: null,
      aside: false,
    })),
    covers: [{ id: k, seenVersion: 1, fields: fields.map((f) => ({ id: f.id, parameter: f.id })), outcome: null, expects: [], start: null, events: [] }],
  };
  await made(attacker, { kind: 'case', content });
  return questions(attacker);
}

async function questions(attacker: Attacker): Promise<string> {
  const said = await Promise.all(Array.from({ length: 10 }, () => ask(attacker, 'GET', `/projects/${attacker.project}/coverage`)));
  return tally(said.map((r) => r.status));
}

async function heavyCombination(attacker: Attacker): Promise<string> {
  await made(attacker, requirement('Heavy'));
  const factors = Array.from({ length: 60 }, (_, i) => ({
    id: `x${i}`,
    name: `x${i}`,
    values: Array.from({ length: 3 }, (_, v) => ({ id: `v${v}`, value: `v${v}`, aliases: [], valid: true, base: v === 0, outcome: '' })),
  }));
  const value = (factor: number, sign: string, v: number): string => `x${factor % 60} ${sign} v${v % 3}`;
  const constraints = Array.from({ length: 200 }, (_, i) => ({ id: `c${i}`, text: `${value(i, '=', i)} or ${value(i * 7 + 1, '=', i * 5)} or ${value(i * 11 + 2, '≠', i * 3 + 1)}` }));
  for (let i = 0; i < 6; i += 1) await made(attacker, condition({ kind: 'combination', factors, constraints, strength: 'pairs', groups: [], seed: i }));
  return questions(attacker);
}

/** As many at a time as one may have, one file after the other. */
async function hostileFiles(attacker: Attacker): Promise<string> {
  const said: string[] = [];
  const left = [...HOSTILE_FILES];
  const one = async (): Promise<void> => {
    for (let file = left.shift(); file !== undefined; file = left.shift()) said.push(`${file.name} ${await bringIn(attacker, file)}`);
  };
  await Promise.all([one(), one(), one(), one()]);
  return said.join(', ');
}

async function bringIn(attacker: Attacker, { name, bytes }: HostileFile): Promise<string> {
  const response = await ask(attacker, 'POST', `/projects/${attacker.project}/imports?name=${encodeURIComponent(name)}`, bytes);
  if (!response.ok) return String(response.status);
  const { id, mapping, reading } = (await response.json()) as { id: string; mapping: object; reading: object };
  const preview = await ask(attacker, 'POST', `/projects/${attacker.project}/imports/${id}/preview`, { mapping, reading });
  if (!preview.ok) return `200/${preview.status}`;
  const run = await ask(attacker, 'POST', `/projects/${attacker.project}/imports/${id}/run`, { mapping, reading, choices: {} });
  return `200/200/${run.status}`;
}

async function uploadsAtOnce(attacker: Attacker): Promise<string> {
  const lines = new TextEncoder().encode(`ID,Title\n${Array.from({ length: 20 }, (_, i) => `U-${i},Line ${i}`).join('\n')}`);
  const said = await Promise.all(Array.from({ length: 40 }, () => ask(attacker, 'POST', `/projects/${attacker.project}/imports?name=lines.csv`, lines)));
  return tally(said.map((r) => r.status));
}

/** Texts that take long to turn into another format, in many requirements. */
async function hostileExports(attacker: Attacker): Promise<string> {
  const texts = [`${'>'.repeat(4_000)} x`, Array.from({ length: 400 }, (_, i) => `${'  '.repeat(i)}- x`).join('\n'), '['.repeat(150_000), '*a _b '.repeat(30_000)];
  for (const [i, text] of texts.entries()) await made(attacker, requirement(`Text ${i}`, { text }));
  const many = Array.from({ length: 1_000 }, (_, i) => requirement(`Many ${i}`, { text: 'A *text* with **marks**.\n\n- one\n- two' }));
  for (let i = 0; i < 10; i += 1) await ask(attacker, 'POST', `/projects/${attacker.project}/artefacts/write`, { made: many, changed: [], withdrawn: [], detail: '' });
  const said = await Promise.all(
    ['csv', 'reqif', 'md'].map((format) =>
      ask(attacker, 'GET', `/projects/${attacker.project}/basis/export?format=${format}&figures=yes`).then(
        async (r) => `${format} ${r.status} ${Math.round((await r.arrayBuffer()).byteLength / 1024)} kB`,
      ),
    ),
  );
  return said.join(', ');
}

async function largeBodies(attacker: Attacker): Promise<string> {
  const body = new TextEncoder().encode(`{"kind":"requirement","content":{"title":"${'x'.repeat(31 * 1024 * 1024)}"}}`);
  const said = await Promise.all(
    Array.from({ length: 6 }, () =>
      fetch(`${attacker.origin}/api/v1/projects/${attacker.project}/artefacts`, { method: 'POST', headers: { cookie: attacker.cookie, 'content-type': 'application/json' }, body }),
    ),
  );
  return tally(said.map((r) => r.status));
}

/** Every attack by its name. */
export const ATTACKS: Readonly<Record<string, Attack>> = { strangersBodies, largeBodies, wrongPasswords, deafReaders, heavyPatterns, heavyCombination, hostileFiles, uploadsAtOnce, hostileExports };
