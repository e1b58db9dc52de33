import { ChevronDown, ChevronRight } from 'lucide-react';
import { CELL } from './drawCells.ts';
import { figureWords } from './matrixWords.ts';
import type { MatrixLine } from './useMatrix.ts';

interface Props {
  readonly line: MatrixLine;
  readonly marked: boolean;
  /** It meets nothing in the whole project. */
  readonly alone: boolean;
  readonly onPick: () => void;
}

/** The grid is one stop of Tab: heads are reached by its arrows, or by pointing. */
export function RowHead({ line, marked, alone, top, onPick }: Props & { readonly top: number }) {
  const look = `absolute inset-x-0 flex items-center gap-2 pl-6 pr-3 text-left text-sm max-[800px]:pr-2 ${marked ? 'bg-blue-wash' : ''}`;
  if (line.kind === 'heading') {
    return (
      <button type="button" tabIndex={-1} aria-expanded={!line.folded} onClick={onPick} className={`${look} ${marked ? '' : 'bg-page2'}`} style={{ top, height: CELL }}>
        {line.folded ? <ChevronRight size={13} aria-hidden="true" className="-ml-4 shrink-0" /> : <ChevronDown size={13} aria-hidden="true" className="-ml-4 shrink-0" />}
        <span className="truncate text-xs font-semibold">{groupName(line.group)}</span>
        <span className="ml-auto font-mono text-xs text-ink2">{line.items}</span>
      </button>
    );
  }
  const { id, title, figure } = line.item;
  return (
    <button type="button" tabIndex={-1} onClick={onPick} title={`${id} ${title}`} className={`${look} ${alone ? 'text-brick' : ''}`} style={{ top, height: CELL }}>
      <span className="w-11 shrink-0 font-mono text-xs max-[800px]:w-8">{id}</span>
      <span className="truncate">{title || 'without a title'}</span>
      <span className={`ml-auto shrink-0 font-mono text-xs ${alone ? '' : 'text-ink2'}`}>{figureWords(figure)}</span>
    </button>
  );
}

export function ColumnHead({ line, marked, alone, left, onPick }: Props & { readonly left: number }) {
  const look = `absolute bottom-0 ${marked ? 'bg-blue-wash' : ''}`;
  if (line.kind === 'heading') {
    const name = groupName(line.group);
    return (
      <button type="button" tabIndex={-1} aria-expanded={!line.folded} aria-label={`${name}, ${line.items}`} title={name} onClick={onPick} className={`${look} top-0 ${marked ? '' : 'bg-page2'}`} style={{ left, width: CELL }}>
        {line.folded ? (
          <Leaning className="font-sans font-semibold text-ink">{shortened(name)}</Leaning>
        ) : (
          // Its name stands above its columns, as far as these reach.
          <span className="absolute left-1.5 top-1.5 truncate text-left text-xs font-semibold" style={{ width: Math.max(CELL, (line.items + 1) * CELL - 8) }}>
            {name}
          </span>
        )}
        <span className="absolute bottom-1 left-1/2 -translate-x-1/2 text-ink2">{line.folded ? <ChevronRight size={13} aria-hidden="true" /> : <ChevronDown size={13} aria-hidden="true" />}</span>
      </button>
    );
  }
  const { id, title } = line.item;
  return (
    <button type="button" tabIndex={-1} aria-label={`${id} ${title}`} title={`${id} ${title}`} onClick={onPick} className={`${look} top-6 z-10`} style={{ left, width: CELL }}>
      <Leaning className={`font-mono ${alone ? 'text-brick' : 'text-ink'}`}>{id.startsWith('U-') ? shortened(`${id} ${title}`) : id}</Leaning>
    </button>
  );
}

/** As much as fits above a column. Of suites there are few, and their numbers say nothing. */
function shortened(name: string): string {
  return name.length > 14 ? `${name.slice(0, 13)}…` : name;
}

function Leaning({ children, className }: { readonly children: string; readonly className: string }) {
  return <span className={`pointer-events-none absolute bottom-1.5 left-3.5 origin-bottom-left -rotate-[58deg] whitespace-nowrap text-xs leading-none ${className}`}>{children}</span>;
}

/** What is in no module or folder. */
export function groupName(group: string): string {
  return group === '' ? 'Without a module or folder' : group;
}
