import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { shownRatio } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { fieldOfColumn, valueIn, type ListColumn } from '@caderno/core/listing';
import type { ListView } from '@caderno/contract';
import { Pencil } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import type { ListedHead } from '../api/index.ts';
import { address } from '../frame/index.ts';
import { CannotBeRead, STANDING_WORD, SelectMark, StandingShape } from '../look/index.ts';
import { NUMBERS } from './ColumnHead.tsx';
import { EditedCell, editedField, type CellRules } from './EditedCell.tsx';
import { cellText } from './listWords.ts';

/** For columns that are none of the project’s own. */
const NO_FIELDS: readonly OwnField[] = [];

/** What all lines of a table have in common; the very same as long as nothing of it changes. */
export interface TableRules extends CellRules {
  readonly project: string;
  readonly kind: ArtefactKind;
  readonly columns: ListView['columns'];
  /** Whether values can be changed where they stand. */
  readonly isEdited: boolean;
  /** What stands behind the `?` of the address: it comes along to what is opened. */
  readonly search: string;
  readonly onSelect: (id: ArtefactId, through: boolean) => void;
  readonly onFocus: (index: number) => void;
}

interface Props {
  readonly table: TableRules;
  readonly index: number;
  readonly top: number;
  readonly template: string;
  readonly width: number;
  readonly listed: ListedHead;
  readonly above: ListedHead | undefined;
  readonly chosen: readonly ListedHead[];
  readonly isSelected: boolean;
  /** Whether Tab leads here. */
  readonly isActive: boolean;
}

/** An artefact on a line of a table. Drawn again only when something of its own changes: while a table is scrolled hundreds of cells stay as they are. */
export const TableLine = memo(function TableLine({ table, index, top, template, width, listed, above, chosen, isSelected, isActive }: Props) {
  return (
    <div
      role="row"
      data-line={index}
      onFocus={() => table.onFocus(index)}
      className={`group absolute grid h-[34px] items-center border-b print:h-auto border-rule ${isSelected ? 'bg-blue-wash' : 'hover:bg-page2'}`}
      style={{ top, gridTemplateColumns: template, minWidth: width }}
    >
      <span role="cell">
        <SelectMark name={listed.id} selected={isSelected} shown={chosen.length > 0} byPointerOnly={!isActive} onSelect={(_, through) => table.onSelect(listed.id as ArtefactId, through)} className="ml-1" />
      </span>
      {table.columns.map(({ column }, place) => (
        <Cell key={column} table={table} column={column} place={place} listed={listed} above={above} selected={chosen} isActive={isActive} />
      ))}
    </div>
  );
});

interface CellProps {
  readonly table: TableRules;
  readonly column: ListColumn;
  readonly place: number;
  readonly listed: ListedHead;
  readonly above: ListedHead | undefined;
  readonly selected: readonly ListedHead[];
  readonly isActive: boolean;
}

function Cell({ table, column, place, listed, above, selected, isActive }: CellProps) {
  const { project, kind, rules, isEdited, search } = table;
  const { fields } = rules;
  const value = valueIn(column, listed, fields);
  const text = cellText(column, value, fields);
  const field = isEdited && !(column === 'title' && listed.broken) ? editedField(kind, column, fields) : null;
  const edited = { table, kind, column, place, listed, above, selected, isActive };
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
    <span role="cell" title={text} className={`min-w-0 truncate px-2 text-sm print:overflow-visible print:px-1 print:text-xs ${column === 'id' ? 'font-mono text-xs text-ink2' : 'print:whitespace-normal print:break-words'} ${NUMBERS.has(column) || typeof value === 'number' ? 'text-right tabular-nums' : ''}`}>
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
