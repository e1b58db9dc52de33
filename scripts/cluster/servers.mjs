import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Failure } from '../failure.mjs';
import { ROOT } from '../install.mjs';
import { freePort } from '../postgres.mjs';
import { dieWithUs, ended } from '../processes.mjs';

/** Servers of Caderno on one database; one that ends by itself is started again. */
export class Servers {
  #env;
  #folder;
  #tell;
  #stopping = false;
  /** The port and the process of each. */
  all = [];

  /** `env`: what all of them are told; `folder`: of the built server. */
  constructor(folder, env, tell) {
    this.#folder = folder;
    this.#env = env;
    this.#tell = tell;
  }

  /** The first one alone: it brings the database to its newest form, and loads the demo. */
  async start(count) {
    for (let i = 0; i < count; i += 1) this.all.push({ port: await freePort(), child: null });
    for (const server of this.all) await this.#run(server);
  }

  /** One by one, so that there is always somebody who answers. */
  async replaceAll() {
    for (const server of this.all) {
      const before = server.child;
      server.child = null;
      before?.kill('SIGTERM');
      if (before !== null) await ended(before);
      await this.#run(server);
      this.#tell(`The server at port ${server.port} was replaced.`);
    }
  }

  async stop() {
    this.#stopping = true;
    for (const { child } of this.all) child?.kill('SIGTERM');
    await Promise.all(this.all.map(({ child }) => child && ended(child)));
  }

  async #run(server) {
    const env = { ...process.env, ...this.#env, PORT: String(server.port) };
    const child = spawn('setpriv', [...dieWithUs('TERM'), '--', process.execPath, join(this.#folder, 'main.mjs')], { env, cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], detached: true });
    server.child = child;
    child.once('exit', () => {
      if (this.#stopping || server.child !== child) return;
      this.#tell(`The server at port ${server.port} ended. It is started again.`);
      void sleep(500).then(() => (this.#stopping ? undefined : this.#run(server))).catch((error) => this.#tell(error.message));
    });
    await untilReady(server.port, child);
  }
}

async function untilReady(port, child) {
  for (let waited = 0; waited < 120_000 && child.exitCode === null; waited += 100) {
    const ready = await fetch(`http://127.0.0.1:${port}/healthz`).then((r) => r.ok, () => false);
    if (ready) return;
    await sleep(100);
  }
  throw new Failure(`The server at port ${port} does not become ready.`);
}
