import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { percentDown, shownRatio, type CoverageReport, type RequirementCoverage } from '@caderno/core/coverage';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useItems } from '../api/index.ts';
import { OpenTicks } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { drawnLines, usePrinting } from '../look/index.ts';

type Line = { readonly kind: 'module'; readonly name: string } | { readonly kind: 'requirement'; readonly coverage: RequirementCoverage };

/** A row per requirement, a tick per coverage item. Every tick names its item and leads to it. */
export function Wall({ report }: { readonly report: CoverageReport }) {
  const lines = useMemo(() => wallLines(report.requirements), [report]);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: () => 33, getItemKey: (i) => keyOf(lines[i], i), overscan: 8 });
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto" role="list" aria-label="Requirements and their coverage items" tabIndex={0}>
      <div data-lines className="relative" style={{ height: rows.getTotalSize() }}>
        {drawnLines(rows, printing).map((row) => {
          const line = lines[row.index];
          if (line === undefined) return null;
          return (
            <div key={row.key} ref={rows.measureElement} data-index={row.index} role="listitem" className="absolute inset-x-0" style={{ top: row.start }}>
              {line.kind === 'module' ? <h2 className="px-6 pb-1 pt-3 text-xs font-semibold text-ink2">{line.name || 'No module'}</h2> : <WallRow coverage={line.coverage} />}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function WallRow({ coverage }: { readonly coverage: RequirementCoverage }) {
  const { project } = useFrame();
  const [near, setNear] = useState(false);
  const nameOf = useItemNames(project, coverage.id, near);
  const percent = percentDown(shownRatio(coverage.counts));
  return (
    <div className="grid min-h-8 grid-cols-[44px_minmax(120px,190px)_1fr_52px] items-center gap-x-3 border-b border-rule px-6 py-1" onPointerEnter={() => setNear(true)} onFocus={() => setNear(true)}>
      <span className="font-mono text-xs text-ink2">{coverage.id}</span>
      <Link to={address.conditions(project, coverage.id)} className="leading-[1.3] hover:underline">
        {coverage.title}
      </Link>
      {coverage.conditions.length === 0 ? <span className="text-xs text-ink2">not analysed yet</span> : <OpenTicks conditions={coverage.conditions} project={project} nameOf={nameOf} />}
      <Link to={`?requirement=${coverage.id}`} className="text-right font-mono text-xs hover:underline" aria-label={percent === null ? `${coverage.id} has nothing to show` : `${percent} % of ${coverage.id} shown; list its items`}>
        {percent === null ? '–' : `${percent} %`}
      </Link>
    </div>
  );
}

/** The names of a requirement's items, read when one comes near its row. */
function useItemNames(project: string, requirement: RequirementId, near: boolean): (condition: ConditionId, index: number) => string | undefined {
  const items = useItems(project, { requirement, limit: 2000 }, near).data?.items;
  const names = useMemo(() => new Map(items?.map((i) => [`${i.condition}/${i.item.number}`, `${i.conditionTitle}: ${i.item.name}`])), [items]);
  return (condition, index) => names.get(`${condition}/${index + 1}`);
}

function wallLines(requirements: readonly RequirementCoverage[]): Line[] {
  const lines: Line[] = [];
  let module: string | null = null;
  for (const coverage of requirements) {
    if (coverage.module !== module) lines.push({ kind: 'module', name: coverage.module });
    module = coverage.module;
    lines.push({ kind: 'requirement', coverage });
  }
  return lines;
}

function keyOf(line: Line | undefined, index: number): string {
  return line?.kind === 'requirement' ? line.coverage.id : `module ${index}`;
}
