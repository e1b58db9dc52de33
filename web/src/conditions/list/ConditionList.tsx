import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { inChecklistOrder, reordered } from '@caderno/core/conditions';
import { countStandings, itemsToMake, itemsToShow, type ConditionCoverage, type Design, type DesignCondition } from '@caderno/core/coverage';
import { Suspense, lazy, useState } from 'react';
import { Link } from 'react-router';
import { Ticks, useWrite } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { MODEL_WORD, TextButton, countOf } from '../../look/index.ts';
import type { ToWrite } from '../writing/WriteCases.tsx';
import { SelectionBar } from './SelectionBar.tsx';

const WriteCases = lazy(() => import('../writing/WriteCases.tsx').then((m) => ({ default: m.WriteCases })));

interface Props {
  readonly requirement: RequirementId;
  readonly design: Design | undefined;
  readonly conditions: readonly DesignCondition[];
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly current: ConditionId | null;
}

const MOVES = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'out', ArrowRight: 'in' } as const;

/** The conditions of a requirement as a nested list: select some and act on them; Alt and the arrows move one. */
export function ConditionList({ requirement, design, conditions, coverages, current }: Props) {
  const { project, canEdit } = useFrame();
  const write = useWrite(project);
  const [selected, setSelected] = useState<readonly ConditionId[]>([]);
  const [writing, setWriting] = useState<readonly ToWrite[] | null>(null);
  const lines = inChecklistOrder(conditions);
  const chosen = conditions.filter((c) => selected.includes(c.id));
  const missing = (some: readonly DesignCondition[]): ToWrite[] =>
    some.flatMap((condition) => {
      const coverage = coverages.get(condition.id);
      const items = coverage === undefined ? [] : itemsToMake(coverage);
      return items.length === 0 ? [] : [{ condition, items }];
    });
  const move = (event: React.KeyboardEvent, id: ConditionId): void => {
    const way = Object.entries(MOVES).find(([key]) => key === event.key)?.[1];
    if (!canEdit || !event.altKey || way === undefined) return;
    event.preventDefault();
    const changed = reordered(conditions, id, way).map(({ condition, under, order }) => ({ kind: 'condition' as const, id: condition.id, version: condition.version, content: { ...condition.content, under, order } }));
    if (changed.length > 0) void write({ changed, detail: `Order of the conditions of ${requirement}` });
  };
  const gaps = missing(conditions);
  return (
    <>
      <ul className="-mx-6" aria-label="Conditions">
        {lines.map(({ condition, level }) => (
          <ConditionLine
            key={condition.id}
            requirement={requirement}
            condition={condition}
            level={level}
            coverage={coverages.get(condition.id)}
            isCurrent={condition.id === current}
            onMove={(event) => move(event, condition.id)}
            {...(canEdit ? { selected: selected.includes(condition.id), onSelect: (on: boolean) => setSelected(on ? [...selected, condition.id] : selected.filter((id) => id !== condition.id)) } : {})}
          />
        ))}
      </ul>
      {chosen.length > 0 && design !== undefined && (
        <SelectionBar requirement={requirement} chosen={chosen} design={design} onWrite={missing(chosen).length > 0 ? () => setWriting(missing(chosen)) : null} onDone={() => setSelected([])} />
      )}
      {canEdit && chosen.length === 0 && gaps.length > 1 && (
        <p className="mt-3 text-sm">
          <TextButton onClick={() => setWriting(gaps)}>Write cases for {countOf(gaps.reduce((n, g) => n + g.items.length, 0), 'missing item')}</TextButton> <span className="text-ink2">of {countOf(gaps.length, 'condition')}</span>
        </p>
      )}
      {writing !== null && (
        <Suspense>
          <WriteCases toWrite={writing} onClose={() => setWriting(null)} />
        </Suspense>
      )}
    </>
  );
}

interface LineProps {
  readonly requirement: RequirementId;
  readonly condition: DesignCondition;
  readonly level: number;
  readonly coverage: ConditionCoverage | undefined;
  readonly isCurrent: boolean;
  readonly onMove: (event: React.KeyboardEvent) => void;
  /** Absent for readers. */
  readonly selected?: boolean;
  readonly onSelect?: (on: boolean) => void;
}

const DEEPEST_INDENT = 5;

function ConditionLine({ requirement, condition, level, coverage, isCurrent, onMove, selected = false, onSelect }: LineProps) {
  const { project } = useFrame();
  const standings = coverage?.items.map((i) => i.standing) ?? [];
  const counts = countStandings(standings);
  const { title, model, polarity, depths } = condition.content;
  return (
    <li className={`group relative border-b border-rule ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      {onSelect !== undefined && (
        <input
          type="checkbox"
          aria-label={`Select ${condition.id}`}
          checked={selected}
          onChange={(e) => onSelect(e.target.checked)}
          className={`absolute left-1.5 top-2.5 size-3.5 ${selected ? '' : 'opacity-0 focus:opacity-100 group-hover:opacity-100'}`}
        />
      )}
      <Link
        to={address.conditions(project, requirement, condition.id)}
        aria-current={isCurrent ? 'page' : undefined}
        onKeyDown={onMove}
        className="flex gap-3 px-6 py-2"
        style={{ paddingLeft: 24 + Math.min(level, DEEPEST_INDENT) * 18 }}
      >
        <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{condition.id}</span>
        <span className="min-w-0 flex-1">
          <span className={isCurrent ? 'font-semibold' : ''}>{title}</span>{' '}
          <span className="text-xs text-ink2">
            {MODEL_WORD[model.kind]}
            {polarity === 'both' ? '' : `, ${polarity}`}
            {depths.length > 0 && ` · ${depths.join(', ')}`}
          </span>
          <span className="block">
            <Ticks conditions={[{ id: condition.id, standings }]} most={48} />
          </span>
        </span>
        <span className="font-mono text-xs">
          {counts.shown}/{itemsToShow(counts)}
        </span>
      </Link>
    </li>
  );
}
