import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { Table2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import type { ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, KIND_NAME } from '../look/index.ts';
import type { LineLook } from './ListEntry.tsx';
import { ListLines } from './ListLines.tsx';
import { emptyWords } from './listWords.ts';
import { QueryLine } from './QueryLine.tsx';
import { SavedQueries } from './SavedQueries.tsx';
import { SelectionBar } from './SelectionBar.tsx';
import type { Listing } from './useListing.ts';
import { ViewBar } from './ViewBar.tsx';

interface Props<K extends ArtefactKind> {
  readonly kind: K;
  readonly listing: Listing<K>;
  readonly current: ArtefactId | null;
  readonly heading: ReactNode;
  /** News below the heading. */
  readonly news?: ReactNode;
  readonly look: LineLook<K>;
  /** What stands in place of the lines, where the kind has a form of its own, as an outline. */
  readonly inPlace?: ReactNode;
  /** Where arrows only move, and what is open stays. */
  readonly staysOpen?: boolean;
  /** Absent: none is made here. */
  readonly onNew?: () => void;
  readonly absent?: readonly string[];
  /** Beside what makes a new one. */
  readonly more?: ReactNode;
  /** Beside the groups and the order. */
  readonly beside?: ReactNode;
  /** What only artefacts of this kind can be asked for, when some are selected. */
  readonly actions?: (chosen: readonly ListedHead<K>[], onDone: () => void) => ReactNode;
  readonly children?: ReactNode;
}

/** The left page of a chapter: its artefacts, found by a query, grouped and sorted, selected and changed together. */
export function ListPage<K extends ArtefactKind>({ kind, listing, current, heading, news, look, inPlace, staysOpen = false, onNew, absent, more, beside, actions, children }: Props<K>) {
  const { project, canEdit } = useFrame();
  const { search } = useLocation();
  const { view, lines, ids, selection, chosen } = listing;
  const many = KIND_NAME[kind][1];
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-2.5 pt-5">
        <div className="flex items-center gap-2">
          <div className="min-w-0 flex-1">{heading}</div>
          <Link to={{ pathname: address.list(project, kind), search }} title={`All ${many} as a table`} aria-label={`Show the ${many} as a table`} className="grid shrink-0 size-chip place-items-center rounded-field border border-rule2 bg-page text-ink2 hover:bg-page2">
            <Table2 size={14} aria-hidden="true" />
          </Link>
        </div>
        {news}
        <div className="mt-2 flex items-start gap-2">
          <QueryLine kind={kind} query={view.query} onQuery={view.setQuery} {...(absent === undefined ? {} : { absent })} />
          {canEdit && onNew !== undefined && <Button onClick={onNew}>New</Button>}
          {more}
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <ViewBar kind={kind} view={view} />
          <SavedQueries kind={kind} query={view.query} onQuery={view.setQuery} />
          {beside}
        </div>
      </header>
      {chosen.length > 0 && <SelectionBar kind={kind} chosen={chosen} matching={ids.length} onAll={selection.selectAll} onDone={selection.clear} more={actions?.(chosen, selection.clear)} />}
      {inPlace ?? <ListLines kind={kind} label={many.charAt(0).toUpperCase() + many.slice(1)} lines={lines} group={view.group} current={current} selection={selection} look={look} staysOpen={staysOpen} empty={emptyWords(kind, listing)} />}
      {children}
    </div>
  );
}
