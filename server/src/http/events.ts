import type { ProjectNews, NewsItem, NewsProject } from './projectNews.ts';

const KEEP_ALIVE_MS = 20_000;

/** Bytes that wait for a reader. Whoever takes in no more is let go: it asks for what it missed when it comes back. */
const MOST_WAITING = 64 * 1024;

export interface Listening {
  readonly project: NewsProject;
  /** What a page that comes back missed, told first; null for one that comes anew. */
  readonly missed: () => Promise<NewsItem | null>;
  /** Whether whoever listens still may; asked with every sign of life. */
  readonly mayListen: () => Promise<boolean>;
  readonly onEnd: () => void;
}

/** The live events of a project as server-sent events, until the page goes away, its session ends, or it reads too slowly. Answers how to end it. */
export function eventStream(news: ProjectNews, { project, missed, mayListen, onEnd }: Listening): { readonly body: ReadableStream<Uint8Array>; end(): void } {
  const encoder = new TextEncoder();
  let end = (_byReader: boolean): void => undefined;
  const body = new ReadableStream<Uint8Array>(
    {
      start: async (controller) => {
        let ended = false;
        let stop = (): void => undefined;
        const send = (event: string, data: string, id = ''): void => {
          if (ended) return;
          controller.enqueue(encoder.encode(`event: ${event}\n${id === '' ? '' : `id: ${id}\n`}data: ${data}\n\n`));
          if ((controller.desiredSize ?? 0) < 0) end(false);
        };
        const alive = setInterval(() => void mayListen().then((may) => (may ? send('alive', '{}') : end(false)), () => undefined), KEEP_ALIVE_MS);
        end = (byReader) => {
          if (ended) return;
          ended = true;
          clearInterval(alive);
          stop();
          onEnd();
          if (!byReader) controller.close();
        };
        // What comes in while the page is told what it missed goes out after it.
        const early: NewsItem[] = [];
        let pass = (item: NewsItem): void => void early.push(item);
        const listening = await news.listen(project, (item) => pass(item));
        stop = listening.stop;
        if (ended) return stop();
        send('open', JSON.stringify(listening.from), String(listening.from.revision));
        const before = await missed().catch(() => {
          // It comes back, and is told then.
          end(false);
          return null;
        });
        pass = (item) => send(item.event, item.data, item.id);
        for (const item of [...(before === null ? [] : [before]), ...early]) pass(item);
      },
      cancel: () => end(true),
    },
    new ByteLengthQueuingStrategy({ highWaterMark: MOST_WAITING }),
  );
  return { body, end: () => end(false) };
}
