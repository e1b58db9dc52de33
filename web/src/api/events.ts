import { API_ROOT, EVENTS_PATH, projectEventSchema, type ProjectEvent } from '@caderno/contract';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { keys } from './queries.ts';

/** After an answer that ends the stream it is opened again. */
const REOPEN_MS = 3_000;

/** Several events in a row are taken in together. */
const GATHER_MS = 60;

/** Keeps what is shown of a project up to date with everyone's changes. Answers whether the server is heard. */
export function useProjectEvents(project: string): { readonly connected: boolean } {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    let source: EventSource;
    let reopening: ReturnType<typeof setTimeout> | undefined;
    let everOpened = false;
    let pending: ProjectEvent[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const flush = (): void => {
      takeIn(client, project, pending);
      pending = [];
    };
    const listen = (): void => {
      source = new EventSource(API_ROOT + EVENTS_PATH.replace(':project', encodeURIComponent(project)));
      source.addEventListener('change', (message) => {
        pending.push(projectEventSchema.parse(JSON.parse(String(message.data))));
        clearTimeout(timer);
        timer = setTimeout(flush, GATHER_MS);
      });
      source.addEventListener('open', () => {
        // What happened while we were away is unknown: read everything again.
        if (everOpened) void client.invalidateQueries({ queryKey: [project] });
        everOpened = true;
        setConnected(true);
      });
      source.addEventListener('error', () => {
        setConnected(false);
        if (source.readyState !== EventSource.CLOSED) return;
        // The server answered and said no, which a browser takes for good: the session may be over, or it was busy.
        void client.invalidateQueries({ queryKey: keys.session });
        reopening = setTimeout(listen, REOPEN_MS);
      });
    };
    listen();
    return () => {
      clearTimeout(timer);
      clearTimeout(reopening);
      source.close();
    };
  }, [client, project]);
  return { connected };
}

function takeIn(client: QueryClient, project: string, events: readonly ProjectEvent[]): void {
  const everything = events.some((e) => e.artefacts.length === 0);
  if (everything) return void client.invalidateQueries({ queryKey: [project] });
  for (const part of ['project', 'list', 'coverage', 'journal']) void client.invalidateQueries({ queryKey: [project, part] });
  for (const id of new Set(events.flatMap((e) => e.artefacts))) void client.invalidateQueries({ queryKey: keys.artefact(project, id) });
}
