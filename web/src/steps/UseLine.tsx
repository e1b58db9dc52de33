import type { Pin } from '@caderno/core/artefacts';
import type { Row, RowId, SharedUse, Use } from '@caderno/core/cases';
import { allRows, openParameters, rowsToRun, type Library, type RowSource, type UsedSteps } from '@caderno/core/shared';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf, locale } from '../look/index.ts';
import { ArgumentsDialog } from './ArgumentsDialog.tsx';
import { OpenedLines } from './OpenedLines.tsx';
import type { LineProps } from './PlainLine.tsx';
import { DropPlace } from './UseDragging.tsx';
import { SelectBox } from './SelectBox.tsx';
import type { StepsOpened } from './useOpened.ts';
import { isForSelection } from './useStepKeys.ts';

interface Props extends LineProps {
  readonly use: Use;
  readonly opened: StepsOpened;
  readonly onPutBack: (use: SharedUse) => void;
}

/** Shared steps or a called case, as one line that opens in place: shared steps with a stitched edge, calls with a double one. */
export const UseLine = memo(function UseLine({ use, number, context, opened, canEdit, focus, act, selected, onSelect, onPutBack }: Props) {
  const { project } = useFrame();
  const [isOpen, setOpen] = useState(false);
  // What it was when the dialog was opened stands in while another version of it is being read; asked for before it is known at all, the dialog opens when it is.
  const [mapping, setMapping] = useState<UsedSteps | 'awaited' | null>(null);
  const line = useRef<HTMLDivElement>(null);
  const turn = focus?.turn ?? 0;
  useEffect(() => {
    if (turn > 0) line.current?.focus();
  }, [turn]);
  const used = opened.usedOf(use);
  const latest = opened.latestOf(use);
  const id = use.kind === 'shared' ? use.shared : use.case;
  const map = (): void => setMapping(used ?? 'awaited');
  if (mapping === 'awaited' && used !== undefined) setMapping(used);
  const title = used?.content.title ?? latest?.title ?? '';
  const keyDown = (event: React.KeyboardEvent): void => {
    if (event.target !== line.current || isForSelection(use, event, selected)) return;
    const taken = commandOf(event, canEdit);
    if (taken === null) return;
    event.preventDefault();
    if (taken === 'open') setOpen(!isOpen);
    else if (taken === 'arguments') map();
    else act(use.id, taken);
  };
  return (
    <li data-step={use.id} data-place={`steps/${use.id}`} className={`group relative flex items-start border-b border-rule py-1.5 [&>span:first-child]:pt-1.5 ${selected ? 'bg-blue-wash' : ''}`}>
      <SelectBox id={use.id} number={number} canEdit={canEdit} selected={selected} onSelect={onSelect} />
      <div
        ref={line}
        tabIndex={0}
        role="group"
        aria-label={`Step ${number}: ${use.kind === 'shared' ? 'shared steps' : 'call of'} ${id} ${title}`}
        onKeyDown={keyDown}
        className={`min-w-0 flex-1 rounded-r-[5px] bg-page2 py-1.5 pl-3 pr-2 ${use.kind === 'shared' ? 'border-l-2 border-dashed border-ink2' : 'border-l-4 border-double border-ink2'}`}
      >
        <div className="flex items-baseline gap-2">
          <button type="button" tabIndex={-1} aria-expanded={isOpen} aria-label={isOpen ? `Close ${id}` : `Open ${id} in place`} className="self-center text-ink2" onClick={() => setOpen(!isOpen)}>
            {isOpen ? <ChevronDown size={14} aria-hidden="true" /> : <ChevronRight size={14} aria-hidden="true" />}
          </button>
          <Link className="font-mono text-xs text-ink2 underline decoration-rule2" to={address.artefact(project, id)}>
            {id}
          </Link>
          <span className="min-w-0 font-medium">{title}</span>
          <span className="ml-auto shrink-0 text-xs text-ink2">{used === undefined ? '' : countOf(used.content.steps.length, 'step')}</span>
        </div>
        <Given use={use} opened={opened} onMap={canEdit ? () => setMapping(used ?? null) : null} />
        <Standing use={use} opened={opened} canEdit={canEdit} onPin={(pinned) => act(use.id, { kind: 'changeUse', part: { pinned } })} />
        {isOpen && (
          <div className="mt-1.5 border-t border-rule pt-1.5">
            <OpenedLines lines={opened.opened.kind === 'opened' ? opened.opened.steps.filter((s) => s.through[0]?.use.id === use.id) : []} depth={1} withValues={context.values !== null} />
            {opened.opened.kind !== 'opened' && <p className="text-sm text-brick">{opened.opened.kind === 'tooDeep' ? `Uses are nested more than ${opened.opened.most} deep.` : `Opened it would have ${opened.opened.steps.toLocaleString(locale())} steps; ${opened.opened.most.toLocaleString(locale())} are shown at most.`}</p>}
            <p className="mt-1 flex gap-4 text-xs">
              {use.kind === 'shared' && canEdit && used !== undefined && <TextButton onClick={() => onPutBack(use)}>put back as plain steps here</TextButton>}
              <Link className="underline decoration-rule2" to={address.artefact(project, id)}>
                go to {id}
              </Link>
            </p>
          </div>
        )}
      </div>
      {canEdit && <DropPlace after={use.id} />}
      {canEdit && (
        <span className="absolute right-2 top-2 hidden gap-3 bg-page2 pl-3 text-xs group-focus-within:flex group-hover:flex">
          <TextButton onClick={map}>values</TextButton>
          <TextButton aria-label={`Remove step ${number}`} onClick={() => act(use.id, { kind: 'remove' })}>
            remove
          </TextButton>
        </span>
      )}
      {mapping !== null && mapping !== 'awaited' && <ArgumentsDialog use={use} used={used ?? mapping} library={opened.library} callers={context.parameters} onChange={(part) => act(use.id, { kind: 'changeUse', part })} onClose={() => setMapping(null)} />}
    </li>
  );
});

function commandOf(event: React.KeyboardEvent, canEdit: boolean): Parameters<LineProps['act']>[1] | 'open' | 'arguments' | null {
  if (event.key === ' ' || event.key === 'ArrowRight' || event.key === 'ArrowLeft') return 'open';
  if (event.key === 'ArrowUp' && !event.altKey) return { kind: 'neighbour', direction: -1, part: 'action' };
  if (event.key === 'ArrowDown' && !event.altKey) return { kind: 'neighbour', direction: 1, part: 'action' };
  if (!canEdit) return null;
  if (event.altKey && event.key === 'ArrowUp') return { kind: 'move', direction: -1, part: 'action' };
  if (event.altKey && event.key === 'ArrowDown') return { kind: 'move', direction: 1, part: 'action' };
  if (event.key === 'Enter') return { kind: 'append' };
  if (event.key === '/') return { kind: 'insert' };
  if (event.key === 'v') return 'arguments';
  return event.key === 'Delete' || event.key === 'Backspace' ? { kind: 'remove' } : null;
}

/** Where the values come from, in a line. */
function Given({ use, opened, onMap }: { readonly use: Use; readonly opened: StepsOpened; readonly onMap: (() => void) | null }) {
  const used = opened.usedOf(use);
  if (used === undefined) return null;
  const given = use.arguments.filter((a) => a.value !== '');
  const names = openParameters(used, opened.library).map((p) => p.name);
  const lost = given.filter((a) => !names.includes(a.id));
  const rows = used.kind === 'case' ? rowsWords(use, used.content, opened.library) : null;
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 text-xs text-ink2">
      {rows !== null && <span className={rows.gone ? 'text-brick' : ''}>{rows.words}</span>}
      {given
        .filter((a) => names.includes(a.id))
        .map((a) => (
          <span key={a.id} className="whitespace-nowrap">
            <span className="cad-parameter">{`<${a.id}>`}</span> ← <span className="font-mono">{a.value}</span>
          </span>
        ))}
      {lost.length > 0 && (
        <span className="text-brick">
          {lost.map((a) => `<${a.id}>`).join(', ')} {lost.length === 1 ? 'is' : 'are'} no parameter of {used.id} any more; {lost.length === 1 ? 'its' : 'their'} value goes nowhere.{' '}
          {onMap !== null && <TextButton onClick={onMap}>mend</TextButton>}
        </span>
      )}
    </div>
  );
}

function rowsWords(use: Use, content: RowSource, library: Library): { readonly words: string; readonly gone: boolean } | null {
  if (use.kind === 'shared' || use.rows.kind === 'mine') return null;
  if (use.rows.kind === 'every') return { words: `every row: ${countOf(Math.max(1, rowsToRun(content, library).length), 'time')}`, gone: false };
  const rows = allRows(content, library);
  if (use.rows.kind === 'chosen') return chosenWords(use.rows.rows, rows);
  const { row: wanted } = use.rows;
  const row = rows.find((r) => r.id === wanted);
  return row === undefined ? { words: 'its row is gone: choose another under “values”', gone: true } : { words: `its row “${row.name || 'unnamed'}”`, gone: false };
}

function chosenWords(chosen: readonly RowId[], rows: readonly Row[]): { readonly words: string; readonly gone: boolean } {
  const there = rows.filter((r) => chosen.includes(r.id));
  const gone = chosen.length - there.length;
  const names = there.slice(0, 3).map((r) => `“${r.name || 'unnamed'}”`).join(', ');
  const words = `${countOf(there.length, 'chosen row')}${names === '' ? '' : `: ${names}${there.length > 3 ? ' …' : ''}`}`;
  return gone === 0 ? { words, gone: false } : { words: `${words}; ${gone} more ${gone === 1 ? 'is' : 'are'} gone: look under “values”`, gone: true };
}

function meaningWords(pinned: Pin, means: number, agreed: number | null): string {
  if (pinned !== 'agreed') return `pinned to v${means}`;
  return agreed === null ? 'follows what is agreed; nothing is yet, so this is the latest' : `follows what is agreed, v${means}`;
}

/** Pinned or not, withdrawn, gone; and what can be done about it. */
function Standing({ use, opened, canEdit, onPin }: { readonly use: Use; readonly opened: StepsOpened; readonly canEdit: boolean; readonly onPin: (pinned: Pin) => void }) {
  const { project } = useFrame();
  const used = opened.usedOf(use);
  const latest = opened.latestOf(use);
  const id = use.kind === 'shared' ? use.shared : use.case;
  if (latest === undefined) return null;
  const means = use.pinned === 'agreed' ? (latest.agreed ?? latest.version) : (use.pinned ?? latest.version);
  const behind = latest.version > means;
  return (
    <>
      {(used?.withdrawn ?? latest.withdrawn) && <p className="text-xs text-brick">{id} is withdrawn. It still stands here; put something else in its place.</p>}
      {use.pinned !== null && (
        <p className={`text-xs ${behind ? 'text-ochre-ink' : 'text-ink2'}`}>
          {meaningWords(use.pinned, means, latest.agreed)}
          {behind && (
            <>
              ; v{latest.version} is there ·{' '}
              <Link className="underline" to={`${address.versions(project, id)}?from=${means}&to=${latest.version}`}>
                compare
              </Link>
            </>
          )}
          {canEdit && behind && use.pinned !== 'agreed' && (
            <>
              {' '}
              · <TextButton onClick={() => onPin(latest.version)}>move to v{latest.version}</TextButton>
            </>
          )}
          {canEdit && (
            <>
              {' '}
              · <TextButton onClick={() => onPin(null)}>follow the latest</TextButton>
            </>
          )}
        </p>
      )}
    </>
  );
}
