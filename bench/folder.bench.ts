import { API_ROOT } from '@caderno/contract';
import { createBenchServer, type BenchServer } from '@caderno/server/bench';
import { fillLarge } from './fillLarge.ts';
import { report, timed, type Figure } from './measure.ts';

/** A baseline of 2 000 requirements, 10 000 conditions, 20 000 cases as a zip of open files, and a project made of it. */
export async function folderFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await createBenchServer(databaseUrl);
  try {
    const ask = asking(server, token);
    await ask('POST', '/projects/large/baselines', Buffer.from(JSON.stringify({ name: 'All', note: '', of: { ids: Array.from({ length: 20_000 }, (_, i) => `C-${i + 1}`) } })), 'application/json');
    let zip = new Uint8Array();
    const written = await timed(async () => (zip = await ask('GET', '/projects/large/baselines/1/folder')));
    const made = await timed(() => ask('POST', '/projects/from-folder?key=large-again&name=Again', zip));
    return [
      { what: `a baseline saved as a zip of files (${Math.round(zip.length / 1024 / 1024)} MB)`, ms: written, budget: 10_000 },
      { what: 'a project made of it', ms: made, budget: 120_000 },
    ];
  } finally {
    await server.close();
  }
}

type Ask = (method: string, path: string, body?: Uint8Array, type?: string) => Promise<Uint8Array<ArrayBuffer>>;

function asking(server: BenchServer, token: string): Ask {
  return async (method, path, body, type = 'application/octet-stream') => {
    const response = await server.fetch(`${API_ROOT}${path}`, { method, headers: { cookie: `caderno_session=${token}`, 'content-type': type }, body: body === undefined ? null : new Blob([Uint8Array.from(body)]) });
    if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
    return new Uint8Array(await response.arrayBuffer());
  };
}

if (process.argv[1]?.endsWith('folder.bench.ts')) process.exitCode = report(await folderFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
