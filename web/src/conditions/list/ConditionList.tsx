import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { inChecklistOrder, reordered } from '@caderno/core/conditions';
import { countStandings, itemsToShow, type Standing } from '@caderno/core/coverage';
import { Suspense, lazy, useState } from 'react';
import { Link } from 'react-router';
import { type ConditionInList, call, tellFailure } from '../../api/index.ts';
import { Ticks, useWrite } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { CannotBeRead, MODEL_WORD, SelectMark, TextButton, countOf } from '../../look/index.ts';
import { SelectionBar } from './SelectionBar.tsx';

const WriteMissing = lazy(() => import('../writing/WriteMissing.tsx').then((m) => ({ default: m.WriteMissing })));

interface Props {
  readonly requirement: RequirementId;
  readonly conditions: readonly ConditionInList[];
  readonly current: ConditionId | null;
}

const MOVES = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'out', ArrowRight: 'in' } as const;

/** The conditions of a requirement as a nested list: select some and act on them; Alt and the arrows move one. */
export function ConditionList({ requirement, conditions, current }: Props) {
  const { canEdit } = useFrame();
  const move = useMove(requirement, conditions);
  const [selected, setSelected] = useState<readonly ConditionId[]>([]);
  const [writing, setWriting] = useState<readonly ConditionInList[] | null>(null);
  const chosen = conditions.filter((c) => selected.includes(c.id));
  const lacking = conditions.filter((c) => missingIn(c.standings) > 0);
  return (
    <>
      <ul className="-mx-6" aria-label="Conditions">
        {inChecklistOrder(conditions).map(({ condition, level }) => (
          <Line
            key={condition.id}
            requirement={requirement}
            condition={condition}
            level={level}
            isCurrent={condition.id === current}
            onMove={(event) => move(event, condition.id)}
            {...(canEdit ? { selected: selected.includes(condition.id), onSelect: (on: boolean) => setSelected(on ? [...selected, condition.id] : selected.filter((id) => id !== condition.id)) } : {})}
          />
        ))}
      </ul>
      {chosen.length > 0 && <SelectionBar requirement={requirement} chosen={chosen} onWrite={chosen.some((c) => lacking.includes(c)) ? () => setWriting(chosen) : null} onDone={() => setSelected([])} />}
      {canEdit && chosen.length === 0 && lacking.length > 1 && (
        <p className="mt-3 text-sm">
          <TextButton onClick={() => setWriting(lacking)}>Write cases for {countOf(lacking.reduce((n, c) => n + missingIn(c.standings), 0), 'missing item')}</TextButton> <span className="text-ink2">of {countOf(lacking.length, 'condition')}</span>
        </p>
      )}
      {writing !== null && (
        <Suspense>
          <WriteMissing requirement={requirement} conditions={writing.map((c) => c.id)} onClose={() => setWriting(null)} />
        </Suspense>
      )}
    </>
  );
}

function missingIn(standings: readonly Standing[]): number {
  const { gap, linked } = countStandings(standings);
  return gap + linked;
}

/** Moves a condition by Alt and an arrow; the places that change are saved as one command. */
function useMove(requirement: RequirementId, conditions: readonly ConditionInList[]): (event: React.KeyboardEvent, id: ConditionId) => void {
  const { project, canEdit } = useFrame();
  const write = useWrite(project);
  const save = async (places: ReturnType<typeof reordered<ConditionInList>>): Promise<void> => {
    const changed = await Promise.all(
      places.map(async ({ condition: { id, version }, under, order }) => {
        const artefact = await call('readArtefact', { params: { project, id } });
        return artefact.kind === 'condition' ? [{ kind: 'condition' as const, id, version, content: { ...artefact.content, under, order } }] : [];
      }),
    );
    await write({ changed: changed.flat(), detail: `Order of the conditions of ${requirement}` });
  };
  return (event, id) => {
    const way = Object.entries(MOVES).find(([key]) => key === event.key)?.[1];
    if (!canEdit || !event.altKey || way === undefined) return;
    event.preventDefault();
    const places = reordered(conditions, id, way);
    if (places.length > 0) save(places).catch(tellFailure);
  };
}

interface LineProps {
  readonly requirement: RequirementId;
  readonly condition: ConditionInList;
  readonly level: number;
  readonly isCurrent: boolean;
  readonly onMove: (event: React.KeyboardEvent) => void;
  /** Absent for readers. */
  readonly selected?: boolean;
  readonly onSelect?: (on: boolean) => void;
}

const DEEPEST_INDENT = 5;

function Line({ requirement, condition: { id, technique, broken, standings, content }, level, isCurrent, onMove, selected = false, onSelect }: LineProps) {
  const { project } = useFrame();
  const counts = countStandings(standings);
  const { title, polarity, depths } = content;
  return (
    <li className={`group relative border-b border-rule ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      {onSelect !== undefined && (
        <SelectMark name={id} selected={selected} onSelect={onSelect} className="absolute left-0 top-1.5" />
      )}
      <Link to={address.conditions(project, requirement, id)} aria-current={isCurrent ? 'page' : undefined} onKeyDown={onMove} className="flex gap-3 px-6 py-2" style={{ paddingLeft: 24 + Math.min(level, DEEPEST_INDENT) * 18 }}>
        <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{id}</span>
        <span className="min-w-0 flex-1">
          <span className={isCurrent ? 'font-semibold' : ''}>{title}</span>{' '}
          <span className="text-xs text-ink2">
            {broken ? <CannotBeRead /> : MODEL_WORD[technique]}
            {polarity === 'both' ? '' : `, ${polarity}`}
            {depths.length > 0 && ` · ${depths.join(', ')}`}
          </span>
          <span className="block">
            <Ticks conditions={[{ id, standings }]} most={48} />
          </span>
        </span>
        <span className="font-mono text-xs">
          {counts.shown}/{itemsToShow(counts)}
        </span>
      </Link>
    </li>
  );
}
