import { API_ROOT, EVENTS_PATH } from '@caderno/contract';
import { StreamHub, type FromTab, type Tab, type ToTab } from './streamHub.ts';

/** Where there are no shared workers, each tab has a stream of its own. */
const own = new StreamHub((address) => new EventSource(address));

/** Hears of a project from now on; answers how to leave. A tab that is put away leaves, and comes again when it is taken out. */
export function joinStream(project: string, tab: Tab): () => void {
  const address = API_ROOT + EVENTS_PATH.replace(':project', encodeURIComponent(project));
  if (typeof SharedWorker === 'undefined') return own.join(address, tab);
  const { port } = new SharedWorker(new URL('./stream.worker.ts', import.meta.url), { type: 'module', name: 'caderno-stream' });
  const say = (message: FromTab): void => port.postMessage(message);
  port.onmessage = ({ data }: MessageEvent<ToTab>) => tab(data);
  const hello = (): void => say({ kind: 'hello', address });
  const bye = (): void => say({ kind: 'bye' });
  hello();
  addEventListener('pagehide', bye);
  addEventListener('pageshow', again);
  function again(event: PageTransitionEvent): void {
    if (event.persisted) hello();
  }
  return () => {
    removeEventListener('pagehide', bye);
    removeEventListener('pageshow', again);
    bye();
    port.close();
  };
}
