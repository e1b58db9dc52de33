import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import { Link, useParams } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { ChooseColumns, ListTable, QueryLine, SavedQueries, SelectionBar, ViewBar, useListing } from '../listing/index.ts';
import { SendByMailButton } from '../sendByMail/index.ts';
import { Empty, KIND_NAME, countOf, locale } from '../look/index.ts';

/** All artefacts of a kind as a table over both pages. */
export function ListChapter() {
  const named = useParams().kind;
  const kind = ARTEFACT_KINDS.find((k) => k === named);
  return kind === undefined ? <Empty title="No such list">The address names no kind of artefact.</Empty> : <TableOf key={kind} kind={kind} />;
}

function TableOf({ kind }: { readonly kind: ArtefactKind }) {
  const { project } = useFrame();
  const listing = useListing(kind);
  const { view, list, total, ids, selection, chosen } = listing;
  const [one, many] = KIND_NAME[kind];
  return (
    <div className="flex h-full flex-col overflow-y-auto print:block print:h-auto">
      <header className="px-7 pb-3 pt-5">
        <h1 className="sr-only first-letter:uppercase print:not-sr-only print:font-serif print:text-xl">{many}</h1>
        <nav aria-label="Kinds" className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
          {ARTEFACT_KINDS.map((k) => (
            <Link key={k} to={address.list(project, k)} aria-current={k === kind ? 'page' : undefined} className={`font-serif first-letter:uppercase ${k === kind ? 'text-xl font-semibold' : 'text-base text-ink2 underline decoration-rule2 underline-offset-4'}`}>
              {KIND_NAME[k][1]}
            </Link>
          ))}
          <span className="ml-auto text-xs text-ink2" role="status">
            {list === undefined ? 'Reading …' : list.length === total ? countOf(total, one, many) : `${list.length.toLocaleString(locale())} of ${countOf(total, one, many)}`}
          </span>
        </nav>
        {view.query !== '' && <p className="hidden font-mono text-xs print:block">{view.query}</p>}
        <div className="mt-3 flex flex-wrap items-start gap-1.5 print:hidden">
          <div className="flex min-w-72 flex-1">
            <QueryLine kind={kind} query={view.query} onQuery={view.setQuery} />
          </div>
          <div className="flex flex-wrap items-center gap-1.5 pt-0.5">
            <SavedQueries kind={kind} query={view.query} onQuery={view.setQuery} />
            <ViewBar kind={kind} view={view} />
            <ChooseColumns kind={kind} view={view} />
            {list !== undefined && list.length > 0 && <SendByMailButton of={{ what: 'list', kind, query: view.query }} words={`a list of ${countOf(list.length, one, many)}`} />}
          </div>
        </div>
      </header>
      {chosen.length > 0 && <SelectionBar kind={kind} chosen={chosen} matching={ids.length} onAll={selection.selectAll} onDone={selection.clear} />}
      <ListTable kind={kind} listing={listing} />
    </div>
  );
}
