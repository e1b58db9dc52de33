import { Worker } from 'node:worker_threads';
import { EMPTY_CASE } from '@caderno/core/cases';
import { report } from '../measure.ts';
import { startServer } from '../startedServer.ts';
import { ATTACKS, type Attacker } from './attacks.ts';
import { kills } from './kills.ts';
import { witnessed, type Witness } from './witness.ts';

const CONTENT = { ...EMPTY_CASE, title: 'Saved on' };

/** Each attack on a server that others work on; answers whether all budgets were kept. */
async function attackAll(database: string, chosen: readonly string[]): Promise<boolean> {
  const server = await startServer(database);
  await server.makeProject('others');
  const { summary } = (await server.post('/projects/others/artefacts', { kind: 'case', content: CONTENT })) as { summary: { id: string } };
  const witness: Witness = { origin: server.origin, cookie: server.cookie, pid: server.pid, project: 'others', caseId: summary.id, content: CONTENT };
  let well = true;
  try {
    for (const name of Object.keys(ATTACKS)) {
      if (chosen.length > 0 && !chosen.includes(name)) continue;
      const project = `evil-${name.toLowerCase()}`;
      await server.makeProject(project);
      const { figures, told } = await witnessed(witness, name, () => attackApart(name, { origin: server.origin, cookie: server.cookie, project }));
      console.log(`     ${name}: answered ${told}`);
      well = report(figures) && well;
    }
  } finally {
    await server.stop();
  }
  return well;
}

function attackApart(name: string, attacker: Attacker): Promise<string> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./attack.worker.mjs', import.meta.url), { workerData: { name, attacker } });
    worker.once('message', resolve).once('error', reject);
  });
}

const url = process.env.CADERNO_TEST_DATABASE;
if (url === undefined) throw new Error('Run it by npm run torture, which starts PostgreSQL');
const chosen = process.argv.slice(2);
const well = await attackAll(url, chosen);
const kept = chosen.length === 0 || chosen.includes('kills') ? await kills() : true;
process.exit(well && kept ? 0 : 1);
