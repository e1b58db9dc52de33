import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { X } from 'lucide-react';
import { Link } from 'react-router';
import { useOwnFields } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { useSavedCounts, type SavedCounts } from '../listing/index.ts';
import { Empty, IconButton, KIND_NAME } from '../look/index.ts';
import { CountsBars } from './CountsBars.tsx';
import { CountsTable } from './CountsTable.tsx';
import { canBeCounted, countsSearch, firstCounts } from './countsView.ts';
import { countsTitle } from './countsWords.ts';
import { useCounts } from './useCounts.ts';

/** What a page of many shows of each: the whole is one click away. */
const MOST = { lines: 12, columns: 6 };

/** The counts that are kept, the project's and one's own, on one page. */
export function KeptCounts() {
  const { project, canEdit, isPast } = useFrame();
  const { saved, error, remove } = useSavedCounts(project);
  if (saved === undefined) return <Loading error={error} />;
  const parts = [
    { name: 'The project’s', those: saved.filter((s) => s.everybody), canRemove: canEdit && !isPast },
    { name: 'My own', those: saved.filter((s) => !s.everybody), canRemove: !isPast },
  ].filter(({ those }) => those.length > 0);
  return (
    <div className="h-full overflow-y-auto px-7 pb-10 pt-5 print:h-auto">
      <header className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
        <h1 className="font-serif text-2xl font-semibold">Counts</h1>
        <nav aria-label="Count anew" className="flex flex-wrap items-baseline gap-x-3 text-sm print:hidden">
          <span className="text-ink2">Count</span>
          {ARTEFACT_KINDS.map((kind) => (
            <Link key={kind} className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={countsSearch(kind, '', firstCounts(kind))}>
              {KIND_NAME[kind][1]}
            </Link>
          ))}
        </nav>
      </header>
      {parts.length === 0 && <Empty title="No counts are kept yet">Choose above what is to be counted. Press Keep there, and the table or the bars stand on this page, always as they are now.</Empty>}
      {parts.map(({ name, those, canRemove }) => (
        <section key={name} aria-label={name} className="mt-5">
          <h2 className="border-b border-ink pb-1 text-sm font-semibold">{name}</h2>
          <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(min(28rem,100%),1fr))] gap-x-10 gap-y-7 print:block">
            {those.map((one) => (
              <KeptOne key={one.id} saved={one} {...(canRemove ? { onRemove: () => void remove(one.id) } : {})} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function KeptOne({ saved: { kind, name, query, counts }, onRemove }: { readonly saved: SavedCounts; readonly onRemove?: () => void }) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const isThere = canBeCounted(kind, counts, fields);
  return (
    <li className="min-w-0 break-inside-avoid print:mb-6">
      <div className="flex items-start gap-2">
        <h3 className="min-w-0 flex-1 font-serif text-base font-semibold">
          <Link className="inline-flex min-h-6 items-center hover:underline" to={countsSearch(kind, query, counts)}>
            {name}
          </Link>
        </h3>
        {onRemove !== undefined && <IconButton label={`Remove the counts ${name}`} icon={<X size={13} aria-hidden="true" />} onClick={onRemove} />}
      </div>
      <p className="mb-2 text-xs text-ink2">
        {isThere ? countsTitle(kind, counts, fields) : 'A field by which this was counted is gone.'} {query !== '' && <span className="font-mono">{query}</span>}
      </p>
      {isThere && <KeptFigures kind={kind} query={query} counts={counts} title={name} />}
    </li>
  );
}

function KeptFigures({ kind, query, counts, title }: Pick<SavedCounts, 'kind' | 'query' | 'counts'> & { readonly title: string }) {
  const shown = useCounts(kind, query, counts);
  if (shown === undefined) return <p className="text-sm text-ink2">Reading …</p>;
  if (shown === null) return <p className="text-sm text-ink2">Too many cells to be shown.</p>;
  if (shown.lines.length === 0) return <p className="text-sm text-ink2">Nothing to count.</p>;
  return counts.as === 'bars' ? <CountsBars counts={shown} view={counts} title={title} most={MOST.lines} /> : <CountsTable counts={shown} view={counts} chosen={null} most={MOST} />;
}
