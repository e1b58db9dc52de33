import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { OwnField } from '@caderno/core/fields';
import { shownRatio } from '@caderno/core/coverage';
import { fieldOfColumn, valueIn, type ListColumn } from '@caderno/core/listing';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Pencil } from 'lucide-react';
import { useCallback, useRef } from 'react';
import { Link, useLocation } from 'react-router';
import { useOwnFields, type ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { CannotBeRead, KIND_NAME, SelectMark, STANDING_WORD, StandingShape, countOf, drawnLines, usePrinting } from '../look/index.ts';
import { ColumnHead, NUMBERS, widthOf } from './ColumnHead.tsx';
import { EditedCell, editedField } from './EditedCell.tsx';
import type { ListLine } from './listLines.ts';
import { cellText, emptyWords, groupName } from './listWords.ts';
import { shownColumns } from './useListView.ts';
import { useLineKeys } from './useLineKeys.ts';
import type { Listing } from './useListing.ts';
import { useTitles } from './useTitles.ts';

const BOX_WIDTH = 32;
/** For columns that are none of the project’s own. */
const NO_FIELDS: readonly OwnField[] = [];

/** The same list over the whole spread: a line for each artefact, with the columns one has chosen. */
export function ListTable<K extends ArtefactKind>({ kind, listing }: { readonly kind: K; readonly listing: Listing<K> }) {
  const { project, canEdit } = useFrame();
  const { view, lines, selection, chosen } = listing;
  const titleOf = useTitles(project);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: () => 34, overscan: 12 });
  const scrollTo = useCallback((index: number) => rows.scrollToIndex(index, { align: 'auto' }), [rows]);
  const fields = useOwnFields(project);
  const keys = useLineKeys(scroller, { lines, selection, current: null, scrollTo });
  const columns = shownColumns(view.columns, kind, fields);
  const widths = columns.map((c) => widthOf(c));
  // On paper all columns stand beside each other, however narrow.
  const template = printing ? `0 ${widths.map((w) => `minmax(0, ${w}fr)`).join(' ')}` : `${BOX_WIDTH}px ${widths.map((w) => `${w}px`).join(' ')}`;
  const width = printing ? 0 : BOX_WIDTH + widths.reduce((sum, w) => sum + w, 0);
  const [one, many] = KIND_NAME[kind];
  const empty = emptyWords(kind, listing);
  return (
    <div ref={scroller} className="min-h-64 flex-1 overflow-auto border-t border-rule print:overflow-visible" role="table" aria-label={`Table of ${many}`} aria-rowcount={lines.length + 1} tabIndex={-1} onKeyDown={keys.onKeyDown}>
      <div role="row" className="sticky top-0 z-10 grid border-b border-ink bg-page text-xs font-semibold text-ink2" style={{ gridTemplateColumns: template, minWidth: width }}>
        <span role="columnheader" aria-label="Selected" />
        {columns.map((column) => (
          <ColumnHead key={column.column} column={column} view={view} />
        ))}
      </div>
      <div data-lines className="relative" role="rowgroup" style={{ height: rows.getTotalSize(), minWidth: width }}>
        {drawnLines(rows, printing).map((row) => {
          const line = lines[row.index];
          if (line === undefined) return null;
          if (line.kind === 'group')
            return (
              <div key={row.key} role="row" className="absolute inset-x-0 flex h-[34px] items-center gap-3 border-b border-rule bg-page2 px-3 text-xs font-semibold text-ink2" style={{ top: row.start }}>
                <span role="rowheader">{view.group === null ? '' : groupName(view.group, line.value, titleOf, fields)}</span>
                <span role="cell" className="font-normal">
                  {countOf(line.members.length, one, many)}
                </span>
              </div>
            );
          const { listed } = line;
          const isSelected = selection.has(listed.id);
          return (
            <div
              key={row.key}
              role="row"
              data-line={row.index}
              onFocus={() => keys.onFocus(row.index)}
              className={`group absolute grid h-[34px] items-center border-b print:h-auto border-rule ${isSelected ? 'bg-blue-wash' : 'hover:bg-page2'}`}
              style={{ top: row.start, gridTemplateColumns: template, minWidth: width }}
            >
              <span role="cell">
                <SelectMark name={listed.id} selected={isSelected} shown={selection.chosen.length > 0} byPointerOnly={row.index !== keys.active} onSelect={(_, through) => selection.toggle(listed.id, through)} className="ml-1" />
              </span>
              {columns.map(({ column }, place) => (
                <Cell key={column} kind={kind} column={column} place={place} listed={listed} above={artefactAt(lines[row.index - 1])} selected={chosen} isActive={row.index === keys.active} isEdited={canEdit && !printing} project={project} fields={fields} />
              ))}
            </div>
          );
        })}
      </div>
      {empty !== null && <p className="px-7 py-6 text-ink2">{empty}</p>}
    </div>
  );
}

/** What stands on a line; undefined: the head of a group, or nothing. */
function artefactAt<K extends ArtefactKind>(line: ListLine<K> | undefined): ListedHead<K> | undefined {
  return line?.kind === 'artefact' ? line.listed : undefined;
}

interface CellProps<K extends ArtefactKind> {
  readonly project: string;
  readonly kind: K;
  readonly column: ListColumn;
  readonly place: number;
  readonly listed: ListedHead<K>;
  readonly above: ListedHead<K> | undefined;
  readonly selected: readonly ListedHead<K>[];
  readonly isActive: boolean;
  /** Whether values can be changed where they stand. */
  readonly isEdited: boolean;
  readonly fields: readonly OwnField[];
}

function Cell<K extends ArtefactKind>({ project, kind, column, place, listed, above, selected, isActive, isEdited, fields }: CellProps<K>) {
  const { search } = useLocation();
  const value = valueIn(column, listed, fields);
  const text = cellText(column, value, fields);
  const field = isEdited && !(column === 'title' && listed.broken) ? editedField(kind, column, fields) : null;
  const edited = { kind, column, place, listed: listed as ListedHead, above: above as ListedHead | undefined, selected: selected as readonly ListedHead[], isActive };
  if (column === 'title') {
    const link = (props: object) => (
      <Link {...props} to={{ pathname: address.artefact(project, listed.id as ArtefactId), search }} className="block min-w-0 flex-1 truncate hover:underline print:whitespace-normal" title={listed.title}>
        {listed.title || '(without a title)'} {listed.broken && <CannotBeRead />}
      </Link>
    );
    return (
      <span role="cell" className="flex min-w-0 items-center px-2 print:px-1">
        {field === null ? (
          link({ 'data-cell': place, tabIndex: isActive ? 0 : -1 })
        ) : (
          <EditedCell {...edited} field={field} text={listed.title}>
            {({ props, begin }) => (
              <>
                {link(props)}
                <button type="button" tabIndex={-1} aria-label={`Rename ${listed.id}`} title="Rename (F2)" className="hidden size-6 shrink-0 place-items-center rounded text-ink2 hover:bg-page group-hover:grid print:hidden" onClick={begin}>
                  <Pencil size={13} aria-hidden="true" />
                </button>
              </>
            )}
          </EditedCell>
        )}
      </span>
    );
  }
  if (field !== null)
    return (
      <span role="cell" className="min-w-0 px-1 text-sm tabular-nums [&>button]:px-1">
        <EditedCell {...edited} field={field} text={text} />
      </span>
    );
  return (
    <span role="cell" title={text} className={`min-w-0 truncate px-2 text-sm print:overflow-visible print:whitespace-normal print:break-words print:px-1 print:text-xs ${column === 'id' ? 'font-mono text-xs text-ink2' : ''} ${NUMBERS.has(column) || typeof value === 'number' ? 'text-right tabular-nums' : ''}`}>
      {column === 'standing' && typeof value === 'string' ? <WorstItem listed={listed} /> : column === 'coverage' ? <Share listed={listed} text={text} /> : fieldOfColumn(column, fields)?.type === 'link' && text !== '' ? <Outside link={text} /> : text}
    </span>
  );
}

/** Only what is an address leads anywhere. */
function Outside({ link }: { readonly link: string }) {
  return /^https?:\/\//i.test(link) ? (
    <a href={link} target="_blank" rel="noreferrer" className="text-blue underline">
      {link.replace(/^https?:\/\//i, '')}
    </a>
  ) : (
    link
  );
}

function WorstItem({ listed }: { readonly listed: ListedHead }) {
  const standing = valueIn('standing', listed, NO_FIELDS);
  const known = (Object.keys(STANDING_WORD) as (keyof typeof STANDING_WORD)[]).find((s) => s === standing);
  return known === undefined ? null : (
    <span className="inline-flex items-center gap-1.5">
      <StandingShape standing={known} /> {STANDING_WORD[known]}
    </span>
  );
}

/** The share, and of how many items. */
function Share({ listed: { standings }, text }: { readonly listed: ListedHead; readonly text: string }) {
  if (standings === undefined) return null;
  const { part, of } = shownRatio(standings);
  return of === 0 ? (
    <span className="text-ink2">nothing to show</span>
  ) : (
    <>
      {text} <span className="text-xs text-ink2">{`${part} of ${of}`}</span>
    </>
  );
}
