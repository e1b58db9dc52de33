import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { buildServer, buildWeb } from './build.mjs';
import { Balancer } from './cluster/balancer.mjs';
import { DatabasePair } from './cluster/databasePair.mjs';
import { Pool } from './cluster/pool.mjs';
import { Servers } from './cluster/servers.mjs';
import { dataFolder } from './dataFolder.mjs';
import { run } from './failure.mjs';
import { ROOT, checkNode, installPackages } from './install.mjs';
import { installPostgres } from './postgres.mjs';

const SERVERS = 3;
const PORT = Number(process.env.PORT ?? 3210);

/**
 * Caderno past one machine, all of it on this one and on loopback: two PostgreSQL, PgBouncer, three servers, HAProxy.
 * `kill -HUP` replaces the servers one by one. Who is who stands in cluster.json of its folder.
 */
async function main() {
  checkNode();
  await installPackages();
  await installPostgres();
  await Pool.install();
  await Balancer.install();
  const folder = join(dataFolder(), 'cluster');
  await mkdir(folder, { recursive: true });
  const [serverFolder, webFolder] = [await buildServer(), await buildWeb()];
  const tell = (words) => console.log(words);

  const pool = new Pool(join(folder, 'pgbouncer'), tell);
  const databases = new DatabasePair(join(folder, 'databases'), tell, async () => {
    if (pool.port !== 0) await pool.leadTo(databases.primary);
    await note();
  });
  const balancer = new Balancer(join(folder, 'haproxy'), PORT);
  let servers = null;
  // Whoever reads it while it is written reads the one before.
  const note = async () => {
    const place = join(folder, 'cluster.json');
    await writeFile(`${place}.next`, JSON.stringify(whoIsWho({ databases, pool, servers, balancer }), null, 1));
    await rename(`${place}.next`, place);
  };

  await databases.start();
  await pool.start(databases.primary);
  servers = new Servers(serverFolder, environment(pool, webFolder, folder), tell);
  await servers.start(SERVERS);
  await balancer.start(servers.all.map((s) => s.port));
  await note();
  console.log(`The cluster is at http://127.0.0.1:${PORT} (servers ${servers.all.map((s) => s.port).join(', ')}; who is who: ${join(folder, 'cluster.json')})`);

  process.on('SIGHUP', () => void servers.replaceAll().then(note).catch((error) => tell(error.message)));
  await new Promise((resolve) => {
    process.on('SIGINT', resolve);
    process.on('SIGTERM', resolve);
  });
  await balancer.stop();
  await servers.stop();
  await pool.stop();
  await databases.stop();
}

function environment(pool, webFolder, folder) {
  return {
    DATABASE_URL: pool.url,
    DATABASE_DIRECT_URL: pool.directUrl,
    CADERNO_WEB: webFolder,
    CADERNO_DEMO: join(ROOT, 'demo', 'fonte-clara'),
    CADERNO_PROXY: '127.0.0.1',
    CADERNO_KEY_FILE: join(folder, 'secret-key'),
  };
}

function whoIsWho({ databases, pool, servers, balancer }) {
  const of = (it) => (it === null || it === undefined ? null : { port: it.port, pid: it.pid });
  return { primary: of(databases.primary), standby: of(databases.standby), pool: of(pool), balancer: of(balancer), servers: (servers?.all ?? []).map(({ port, child }) => ({ port, pid: child?.pid })) };
}

run(main);
