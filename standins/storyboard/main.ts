import { readFile } from 'node:fs/promises';
import { serve } from '@hono/node-server';
import { parse } from 'yaml';
import { boardSchema, createStoryboard } from './app.ts';

const [file, port = '3221'] = process.argv.slice(2);
if (file === undefined) {
  console.error('Usage: storyboard FILE [PORT]\n  FILE holds the stories and defects, as demo/fonte-clara/storyboard.yaml does.');
  process.exit(2);
}
const board = boardSchema.parse(parse(await readFile(file, 'utf8')));
const app = createStoryboard(board, { failsEvery: 7, slowEvery: 11, slowMs: 1_500 });
const server = serve({ fetch: app.fetch, hostname: '127.0.0.1', port: Number(port) }, (address) => console.log(`The simulated story tracker is at http://127.0.0.1:${address.port}`));
server.on('error', (error) => {
  console.error(`The simulated story tracker could not start: ${error.message}. Caderno works without it.`);
  process.exit(1);
});
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => server.close(() => process.exit(0)));
