import type { ShownByLink } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { RefusedCall, call, failureSentence } from '../api/index.ts';
import { Button, Empty, STATE_WORD, dateAndTime } from '../look/index.ts';
import { Copy } from './Copy.tsx';

/** What a link to read leads to: one artefact on a sheet of its own, for whoever has the link. Its word stands behind the # and never reaches a log. */
export function ShownPage() {
  const token = useHash();
  // Each look is counted: it is not read again by itself.
  const { data, error } = useQuery({ queryKey: ['shown', token], queryFn: () => call('openReadLink', { body: { token } }), retry: false, refetchOnWindowFocus: false, refetchOnReconnect: false, staleTime: Number.POSITIVE_INFINITY });
  if (data !== undefined) return <Sheet shown={data} />;
  if (error === null) return <p className="p-7 text-ink2">Opening …</p>;
  return (
    <main>
      <Empty title={isOpenedTooOften(error) ? 'This link does not open now' : 'This link opens nothing'}>{/^[\w-]{20,80}$/.test(token) ? failureSentence(error) : 'The link is not whole. Copy all of it, up to its last letter.'}</Empty>
    </main>
  );
}

function isOpenedTooOften(error: Error): boolean {
  return error instanceof RefusedCall && error.refusal.code === 'too_many_attempts';
}

/** What stands behind the #: another link that is pasted over this one differs there alone, which a browser does not load again. */
function useHash(): string {
  return useSyncExternalStore(hearHash, () => window.location.hash.slice(1));
}

function hearHash(listener: () => void): () => void {
  addEventListener('hashchange', listener);
  return () => removeEventListener('hashchange', listener);
}

function Sheet({ shown }: { readonly shown: ShownByLink }) {
  const { id, project, version, state, savedAt, by, endsAt, copy } = shown;
  return (
    <main className="mx-auto my-6 w-full max-w-3xl rounded-[10px] border border-rule2 bg-page px-8 py-7 max-phone:my-0 max-phone:rounded-none max-phone:px-4 print:my-0 print:border-0 print:p-0">
      <title>{`${id} ${copy.title} · Caderno`}</title>
      <header className="border-b border-rule2 pb-3">
        <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
          <span className="font-mono text-xs text-ink2">{id}</span>
          <h1 className="min-w-0 flex-1 break-words font-serif text-2xl font-semibold">{copy.title || 'without a title'}</h1>
          <span className="self-start print:hidden">
            <Button onClick={() => window.print()}>
              <Printer size={14} aria-hidden="true" /> Print
            </Button>
          </span>
        </div>
        <p className="mt-1 text-sm text-ink2">
          from “{project}” · version {version}, {STATE_WORD[state].toLowerCase()}, saved {dateAndTime(savedAt)} · shown to you by {by}, until {dateAndTime(endsAt)}
        </p>
      </header>
      <Copy id={id} copy={copy} />
    </main>
  );
}
