import { serve } from '@hono/node-server';
import { createPostboxPage } from './page.ts';
import { Postbox } from './postbox.ts';

const [smtpPort = '3223', pagePort = '3222'] = process.argv.slice(2);
const fail = (error: Error): void => {
  console.error(`The simulated mail server could not start: ${error.message}. Caderno works without it; its mails wait.`);
  process.exit(1);
};
const postbox = new Postbox();
postbox.listen(Number(smtpPort)).catch(fail);
const server = serve({ fetch: createPostboxPage(postbox).fetch, hostname: '127.0.0.1', port: Number(pagePort) });
server.on('error', fail);
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => process.exit(0));
