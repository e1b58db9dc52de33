import type { ProjectEvent } from '@caderno/contract';
import type { ChangeFeed } from './changeFeed.ts';

const KEEP_ALIVE_MS = 20_000;

/** Bytes that wait for a reader. Whoever takes in no more is let go: it reads everything again when it comes back. */
const MOST_WAITING = 64 * 1024;

export interface Listening {
  readonly project: string;
  /** Whether whoever listens still may; asked with every sign of life. */
  readonly mayListen: () => Promise<boolean>;
  readonly onEnd: () => void;
}

/** The live events of a project as server-sent events, until the page goes away, its session ends, or it reads too slowly. Answers how to end it. */
export function eventStream(feed: ChangeFeed, { project, mayListen, onEnd }: Listening): { readonly body: ReadableStream<Uint8Array>; end(): void } {
  const encoder = new TextEncoder();
  let end = (_byReader: boolean): void => undefined;
  const body = new ReadableStream<Uint8Array>(
    {
      start: (controller) => {
        let ended = false;
        const send = (event: string, data: string): void => {
          if (ended) return;
          controller.enqueue(encoder.encode(`event: ${event}\ndata: ${data}\n\n`));
          if ((controller.desiredSize ?? 0) < 0) end(false);
        };
        const stop = feed.listen(project, (event: ProjectEvent) => send('change', JSON.stringify(event)));
        const alive = setInterval(() => void mayListen().then((may) => (may ? send('alive', '{}') : end(false)), () => undefined), KEEP_ALIVE_MS);
        end = (byReader) => {
          if (ended) return;
          ended = true;
          clearInterval(alive);
          stop();
          onEnd();
          if (!byReader) controller.close();
        };
        send('open', '{}');
      },
      cancel: () => end(true),
    },
    new ByteLengthQueuingStrategy({ highWaterMark: MOST_WAITING }),
  );
  return { body, end: () => end(false) };
}
