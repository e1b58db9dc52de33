import { failureSentence } from '../api/index.ts';
import type { KeepState } from './editing.ts';

/** How far what is typed is kept. `saved`: what is said of a text that is as its version. */
export function KeepWords({ keep, saved }: { readonly keep: KeepState; readonly saved: string }) {
  switch (keep.kind) {
    case 'version':
      return <>{saved}</>;
    case 'typing':
      return <>typing …</>;
    case 'kept':
      return <span className="text-pine">kept as draft</span>;
    case 'waiting':
      return <span className="text-ochre-ink">{keep.here ? 'kept in this browser, sent when the server is back' : 'kept on this page only: leave it open until the server is back'}</span>;
    case 'refused':
      return <span className="text-brick">not kept: {failureSentence(keep.error)}</span>;
  }
}
