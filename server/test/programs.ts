import { expect } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';

export interface Started {
  readonly child: ChildProcess;
  readonly origin: string;
  readonly output: () => string;
}

/** Starts a script of ours as a person does, with its data in a folder of the test's own. */
export function programs(script: string) {
  const path = fileURLToPath(new URL(`../../scripts/${script}`, import.meta.url));
  const folder = mkdtempSync(join(tmpdir(), 'caderno-start-'));
  // Started by root, PostgreSQL runs as another account and has to pass through.
  chmodSync(folder, 0o711);
  const running = new Set<ChildProcess>();

  function launch(args: string[], env: Record<string, string>): { child: ChildProcess; output: () => string } {
    const child = spawn(process.execPath, [path, ...args], { env: { ...process.env, NODE_OPTIONS: '', PORT: '0', STORYBOARD_PORT: '0', CADERNO_DATA: join(folder, 'data'), ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    child.stdout?.on('data', (chunk) => (output += String(chunk)));
    child.stderr?.on('data', (chunk) => (output += String(chunk)));
    running.add(child);
    child.once('exit', () => running.delete(child));
    return { child, output: () => output };
  }

  /** `ready`: what it says, and where, once it is up. */
  async function start(args: string[] = [], env: Record<string, string> = {}, ready = /Caderno is at (http:\S+)/): Promise<Started> {
    const { child, output } = launch(args, env);
    for (let waited = 0; waited < 120_000 && child.exitCode === null; waited += 100) {
      const origin = ready.exec(output())?.[1];
      if (origin !== undefined) return { child, origin, output };
      await sleep(100);
    }
    throw new Error(`Caderno did not start:\n${output()}`);
  }

  async function failure(args: string[], env: Record<string, string>): Promise<string> {
    const { child, output } = launch(args, env);
    expect(await exit(child)).toBe(1);
    return output().trim();
  }

  return {
    folder,
    launch,
    start,
    failure,
    close: () => {
      for (const child of running) child.kill('SIGTERM');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export async function exit(child: ChildProcess): Promise<number | null> {
  while (child.exitCode === null && child.signalCode === null) await sleep(50);
  return child.exitCode;
}

/** Processes that work on a data folder: PostgreSQL and all of its backends. */
export function processesAt(data: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => commandOf(pid).includes(data));
}

export function commandOf(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    // It ended while we looked.
    return '';
  }
}

export async function session(origin: string): Promise<{ demoPeople: { id: string; name: string }[]; needsSetup: boolean }> {
  return (await (await fetch(`${origin}/api/v1/session`)).json()) as { demoPeople: { id: string; name: string }[]; needsSetup: boolean };
}

export async function post(origin: string, path: string, body: object, cookie = '', method = 'POST', headers: Record<string, string> = {}): Promise<Response> {
  return fetch(`${origin}/api/v1${path}`, { method, headers: { 'content-type': 'application/json', cookie, ...headers }, body: JSON.stringify(body) });
}

/** Signs in as a person of the demo; answers the cookie. */
export async function signIn(origin: string): Promise<string> {
  const { demoPeople } = await session(origin);
  const response = await post(origin, '/session', { demoPerson: demoPeople.find((p) => p.name === 'Inês V.')?.id });
  return response.headers.get('set-cookie')?.split(';')[0] ?? '';
}
