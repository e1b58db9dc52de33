import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { ChangeFeed } from './changeFeed.ts';

const KEEP_ALIVE_MS = 20_000;

/** The live events of a project, until the page goes away. */
export function eventStream(c: Context, feed: ChangeFeed, project: string): Response {
  return streamSSE(c, async (stream) => {
    const stop = feed.listen(project, (event) => void stream.writeSSE({ event: 'change', data: JSON.stringify(event) }));
    stream.onAbort(stop);
    await stream.writeSSE({ event: 'open', data: '{}' });
    while (!stream.aborted && !stream.closed) {
      await stream.sleep(KEEP_ALIVE_MS);
      await stream.writeSSE({ event: 'alive', data: '{}' });
    }
    stop();
  });
}
