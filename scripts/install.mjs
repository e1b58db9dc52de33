import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Failure } from './failure.mjs';
import { isRoot, runProgram } from './processes.mjs';

export const ROOT = join(import.meta.dirname, '..');

const OLDEST_NODE = [20, 19];

/** Refuses a Node.js that the packages do not run on. */
export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  const tooOld = major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1]);
  if (tooOld) throw new Failure(`Caderno needs Node.js ${OLDEST_NODE.join('.')} or newer; this is ${process.versions.node}. Install a newer one and start again.`);
}

/** What takes a minute has hung when it takes this long: a connection that went silent is asked anew. */
const INSTALLING_MS = 5 * 60_000;
const ATTEMPTS = 3;

/** Installs the npm packages of the lock file, unless exactly these are there already. */
export async function installPackages() {
  const lock = await readFile(join(ROOT, 'package-lock.json'));
  const wanted = createHash('sha256').update(lock).digest('hex');
  const marker = join(ROOT, 'node_modules', '.caderno-lock');
  if (existsSync(marker) && (await readFile(marker, 'utf8')) === wanted) return;
  console.log('Installing the npm packages of the lock file (about a minute) …');
  const install = () => runProgram('npm', ['ci', '--prefer-offline', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT, atMost: INSTALLING_MS });
  const { code, output } = await untilItEnds(install, 'npm did not answer');
  if (code !== 0) throw new Failure(`npm could not install the packages:\n${output.trim()}\nCheck the network and the free disk space, and start again; nothing else was changed.`);
  await writeFile(marker, wanted);
}

/** Runs a program once more as long as it hangs. */
async function untilItEnds(start, hangs) {
  for (let attempt = 1; ; attempt += 1) {
    const result = await start();
    if (!result.tooLong || attempt === ATTEMPTS) return result;
    console.log(`${hangs} for ${INSTALLING_MS / 60_000} minutes; it is asked once more …`);
  }
}

/** Installs a Debian package when the program it brings is not there. */
export async function installDebianPackage(name, isThere) {
  if (isThere()) return;
  if (!isRoot) throw new Failure(`Debian's package ${name} is missing and only root may install it. Run once: sudo apt-get install --no-install-recommends ${name}`);
  console.log(`Installing Debian's package ${name} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) => untilItEnds(() => runProgram('apt-get', args, { env, atMost: INSTALLING_MS }), 'Debian’s archive did not answer');
  const install = () => apt('install', '-y', '-q', '--no-install-recommends', name);
  let result = await install();
  if (result.code !== 0) {
    await apt('update', '-q');
    result = await install();
  }
  if (result.code !== 0 || !isThere()) throw new Failure(`Debian's package ${name} could not be installed:\n${result.output.trim().split('\n').slice(-3).join('\n')}\nInstall it by hand and start again.`);
}
