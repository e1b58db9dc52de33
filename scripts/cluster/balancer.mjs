import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Failure } from '../failure.mjs';
import { installDebianPackage } from '../install.mjs';
import { dieWithUs, ended } from '../processes.mjs';
import { answers } from './answers.mjs';

const PROGRAM = '/usr/sbin/haproxy';

/** HAProxy: one address for all servers; only those that are ready are asked. */
export class Balancer {
  #folder;
  #child = null;
  port;

  constructor(folder, port) {
    this.#folder = folder;
    this.port = port;
  }

  static install() {
    return installDebianPackage('haproxy', () => existsSync(PROGRAM));
  }

  async start(ports) {
    await mkdir(this.#folder, { recursive: true });
    const file = join(this.#folder, 'haproxy.cfg');
    await writeFile(file, configuration(this.port, ports));
    this.#child = spawn('setpriv', [...dieWithUs('TERM'), '--', PROGRAM, '-q', '-db', '-f', file], { stdio: ['ignore', 'ignore', 'inherit'], detached: true });
    if (!(await answers(this.port, 10_000))) throw new Failure(`HAProxy does not start at port ${this.port}. Its settings are ${file}.`);
  }

  get pid() {
    return this.#child?.pid;
  }

  async stop() {
    this.#child?.kill('SIGTERM');
    if (this.#child !== null) await ended(this.#child);
  }
}

function configuration(port, servers) {
  return `
global
  maxconn 4000
defaults
  mode http
  maxconn 4000
  timeout connect 2s
  # Event streams say something more often than this.
  timeout client 90s
  timeout server 90s
  option forwardfor
  option redispatch
  retries 3
  # A request that reached nobody is given to another server; so is a reading whose
  # connection was closed by a server that goes as it was sent. A save is sent again
  # by the page itself, as the same command.
  retry-on conn-failure empty-response
frontend everybody
  bind 127.0.0.1:${port}
  http-request set-header X-Forwarded-Proto http
  http-request disable-l7-retry if !METH_GET
  default_backend servers
backend servers
  balance leastconn
  option httpchk
  http-check send meth GET uri /healthz ver HTTP/1.1 hdr Host 127.0.0.1
  http-check expect status 200
  default-server check inter 500ms fall 2 rise 1 observe layer4 error-limit 1 on-error mark-down
${servers.map((p, i) => `  server server${i + 1} 127.0.0.1:${p}`).join('\n')}
`;
}
