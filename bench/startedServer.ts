import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildServer } from '../scripts/build.mjs';

/** A server as `npm start` starts it, with an administrator signed in. */
export interface StartedServer {
  readonly origin: string;
  readonly cookie: string;
  readonly pid: number;
  makeProject(key: string): Promise<void>;
  get(path: string): Promise<unknown>;
  post(path: string, body: object | Buffer): Promise<unknown>;
  mostMemory(): Promise<number>;
  stop(): Promise<void>;
}

export const BENCH_PERSON = { email: 'bench@bench.example', password: 'long enough for a bench' } as const;

/** A server as `npm start` starts it, on a database that may have people or not. */
export interface SpawnedServer {
  readonly origin: string;
  readonly pid: number;
  /** What it has printed so far. */
  printed(): string;
  /** MB: the kernel's own mark of the most resident memory, threads included. */
  mostMemory(): Promise<number>;
  stop(): Promise<void>;
}

export async function spawnServer(databaseUrl: string, environment: Readonly<Record<string, string>> = {}): Promise<SpawnedServer> {
  const folder = String(await buildServer());
  const port = await freePort();
  const child = spawn(process.execPath, [join(folder, 'main.mjs')], { env: { MALLOC_ARENA_MAX: '2', ...process.env, DATABASE_URL: databaseUrl, PORT: String(port), LOG_LEVEL: 'error', NODE_OPTIONS: '', ...environment }, stdio: ['ignore', 'pipe', 'inherit'] });
  let printed = '';
  child.stdout.on('data', (chunk) => (printed += String(chunk)));
  // Whoever measures may end before they stop us: nothing is left running.
  process.once('exit', () => child.kill('SIGKILL'));
  const origin = `http://127.0.0.1:${port}`;
  while (!(await fetch(`${origin}/healthz`).then((r) => r.ok, () => false))) await new Promise((resolve) => setTimeout(resolve, 100));
  return {
    origin,
    pid: child.pid ?? 0,
    printed: () => printed,
    mostMemory: async () => Number(/VmHWM:\s+(\d+)/.exec(await readFile(`/proc/${child.pid ?? 0}/status`, 'utf8'))?.[1] ?? 0) / 1024,
    stop: () =>
      new Promise((resolve) => {
        child.once('exit', () => resolve());
        child.kill('SIGTERM');
      }),
  };
}

export async function startServer(databaseUrl: string, webFolder?: string): Promise<StartedServer> {
  const { origin, pid, printed, mostMemory, stop } = await spawnServer(databaseUrl, webFolder === undefined ? {} : { CADERNO_WEB: webFolder });
  let cookie = '';
  const ask = async (method: string, path: string, body?: object | Buffer): Promise<unknown> => {
    const headers: Record<string, string> = { cookie, 'command-id': randomUUID(), ...(body === undefined ? {} : { 'content-type': body instanceof Buffer ? 'application/octet-stream' : 'application/json' }) };
    const response = await fetch(`${origin}/api/v1${path}`, { method, headers, body: body === undefined ? null : body instanceof Buffer ? new Uint8Array(body) : JSON.stringify(body) });
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${await response.text()}`);
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    return response.json();
  };
  const word = /needs this word: (\S+)/.exec(printed())?.[1] ?? '';
  await ask('POST', '/setup', { name: 'Bench', email: BENCH_PERSON.email, password: BENCH_PERSON.password, word });
  return {
    origin,
    cookie,
    pid,
    makeProject: async (key) => void (await ask('POST', '/projects', { key, name: key })),
    get: (path) => ask('GET', path),
    post: (path, body) => ask('POST', path, body),
    mostMemory,
    stop,
  };
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}
