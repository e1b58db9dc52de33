import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { EMPTY_CASE } from '@caderno/core/cases';

const ROUNDS = Number(process.env.TORTURE_KILLS ?? 20);
const SAVERS = 4;
const START = join(import.meta.dirname, '..', '..', 'scripts', 'start.mjs');

/** A case that one saver writes, and the last version that was acknowledged. */
interface Saver {
  readonly id: string;
  acknowledged: number;
}

/** Kills the server or its database again and again while people save; every acknowledged save must be there, whole and once. */
export async function kills(): Promise<boolean> {
  const folder = mkdtempSync(join(tmpdir(), 'caderno-kills-'));
  chmodSync(folder, 0o711);
  let started = await start(folder);
  const cookie = await enter(started.origin);
  const savers: Saver[] = [];
  for (let i = 0; i < SAVERS; i += 1) savers.push({ id: await makeCase(started.origin, cookie, i), acknowledged: 1 });
  let lost = 0;
  let saves = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const whom = round % 2 === 0 ? 'server' : 'database';
    const before = savers.reduce((n, s) => n + s.acknowledged, 0);
    let over = false;
    const saving = savers.map((saver) => keepSaving(started.origin, cookie, saver, () => over));
    await sleep(400 + Math.random() * 800);
    for (const pid of processesOf(folder, started.child, whom)) kill(pid);
    over = true;
    await Promise.all(saving);
    if (whom === 'server') {
      started.child.kill('SIGKILL');
      started = await start(folder);
    } else await healthy(started.origin);
    for (const saver of savers) {
      const { version, whole } = await read(started.origin, cookie, saver.id);
      // The last save was answered or not: either way it is there whole, or not at all.
      if (!whole || version < saver.acknowledged || version > saver.acknowledged + 1) lost += 1;
      saver.acknowledged = version;
    }
    saves += savers.reduce((n, s) => n + s.acknowledged, 0) - before;
  }
  started.child.kill('SIGTERM');
  await new Promise((resolve) => started.child.once('exit', resolve));
  rmSync(folder, { recursive: true, force: true });
  console.log(`${lost === 0 ? 'ok  ' : 'LOST'} kills: ${ROUNDS} of server and database in turn, ${saves} saves, ${lost} lost, half or doubled`);
  return lost === 0 && saves > ROUNDS;
}

async function start(folder: string): Promise<{ readonly child: ChildProcess; readonly origin: string }> {
  const child = spawn(process.execPath, [START], { env: { ...process.env, PORT: '0', STORYBOARD_PORT: '0', CADERNO_DATA: folder, NODE_OPTIONS: '' }, stdio: ['ignore', 'pipe', 'ignore'] });
  let printed = '';
  child.stdout?.on('data', (chunk) => (printed += String(chunk)));
  for (let waited = 0; waited < 90_000; waited += 100) {
    const origin = /Caderno is at (http:\S+)/.exec(printed)?.[1];
    if (origin !== undefined) return { child, origin };
    await sleep(100);
  }
  throw new Error(`Caderno did not start again:\n${printed}`);
}

async function enter(origin: string): Promise<string> {
  const { demoPeople } = (await (await fetch(`${origin}/api/v1/session`)).json()) as { demoPeople: { id: string; name: string }[] };
  const response = await fetch(`${origin}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ demoPerson: demoPeople.find((p) => p.name === 'Inês V.')?.id }),
  });
  return response.headers.get('set-cookie')?.split(';')[0] ?? '';
}

const content = (text: string): object => ({ ...EMPTY_CASE, title: 'Killed', objective: text, preconditions: text });

async function makeCase(origin: string, cookie: string, i: number): Promise<string> {
  const response = await fetch(`${origin}/api/v1/projects/fonte-clara/artefacts`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ kind: 'case', content: content(`saver ${i}`) }),
  });
  return ((await response.json()) as { summary: { id: string } }).summary.id;
}

async function keepSaving(origin: string, cookie: string, saver: Saver, isOver: () => boolean): Promise<void> {
  while (!isOver()) {
    const next = saver.acknowledged + 1;
    const body = JSON.stringify({ kind: 'case', content: content(`v${next}`), note: '' });
    const headers = { cookie, 'content-type': 'application/json', 'if-match': `"${saver.acknowledged}"`, 'command-id': randomUUID() };
    const response = await fetch(`${origin}/api/v1/projects/fonte-clara/artefacts/${saver.id}`, { method: 'PUT', headers, body }).catch(() => null);
    if (response?.ok !== true) return;
    saver.acknowledged = next;
  }
}

async function read(origin: string, cookie: string, id: string): Promise<{ readonly version: number; readonly whole: boolean }> {
  const response = await fetch(`${origin}/api/v1/projects/fonte-clara/artefacts/${id}`, { headers: { cookie } });
  const { summary, content: found } = (await response.json()) as { summary: { version: number }; content: { objective: string; preconditions: string } };
  return { version: summary.version, whole: found.objective === found.preconditions && (summary.version === 1 || found.objective === `v${summary.version}`) };
}

async function healthy(origin: string): Promise<void> {
  for (let waited = 0; waited < 60_000; waited += 100) {
    if (
      await fetch(`${origin}/healthz`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return;
    await sleep(100);
  }
  throw new Error('The server did not get well again after its database was killed');
}

/** The server's process, or all of PostgreSQL's on the folder. */
function processesOf(folder: string, child: ChildProcess, whom: 'server' | 'database'): number[] {
  const all = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number);
  if (whom === 'database') return all.filter((pid) => commandOf(pid).includes('postgres') && commandOf(pid).includes(folder));
  return all.filter((pid) => parentOf(pid) === child.pid && commandOf(pid).includes('main.mjs'));
}

function commandOf(pid: number): string {
  return readProc(pid, 'cmdline');
}

function parentOf(pid: number): number {
  return Number(/PPid:\s+(\d+)/.exec(readProc(pid, 'status'))?.[1] ?? 0);
}

function readProc(pid: number, file: string): string {
  try {
    return readFileSync(`/proc/${pid}/${file}`, 'utf8');
  } catch {
    // It ended while we looked.
    return '';
  }
}

function kill(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // It ended by itself.
  }
}
