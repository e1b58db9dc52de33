import { scenarioId, type ConditionId, type CoveringId, type RequirementId, type SuiteId } from '@caderno/core/artefacts';
import { CELL_SIZE, percentDown, shownRatio, type MatrixCells } from '@caderno/core/coverage';
import { groupedLike, type Axis, type AxisItem } from '@caderno/core/matrix';
import { useDeferredValue, useMemo } from 'react';
import { useCoverage, useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import type { MatrixView, Side } from './matrixView.ts';

export type MatrixId = RequirementId | ConditionId | CoveringId | SuiteId;

/** How much of something is shown, in per cent (null: it has nothing to show), or how many items it shows. Words are made of it where it is seen: there may be tens of thousands. */
export type ItemFigure = { readonly kind: 'shown'; readonly percent: number | null } | { readonly kind: 'shows'; readonly items: number };

/** Something on an axis, as its head shows it. */
export interface MatrixItem extends AxisItem<MatrixId> {
  readonly title: string;
  readonly figure: ItemFigure;
}

export type Axes = Readonly<Record<Side, Axis<MatrixItem>>>;
export type Cells = MatrixCells<CoveringId | SuiteId>;

/** What stands on both axes; undefined until it is known. */
export function useAxes(view: MatrixView, cells: Cells | undefined): Axes | undefined {
  const [basis, tests] = [useBasis(view, cells), useTests(view, cells)];
  return useMemo(() => (basis === undefined || tests === undefined ? undefined : { basis, tests: { all: tests.all, found: groupedLike(tests.found, basis.all) } }), [basis, tests]);
}

function useBasis({ basis, sides }: MatrixView, cells: Cells | undefined): Axis<MatrixItem> | undefined {
  const { project } = useFrame();
  const report = useCoverage(project).data;
  const kind = basis === 'requirements' ? 'requirement' : 'condition';
  const found = useSummaries(project, kind, useDeferredValue(sides.basis.query)).data;
  const conditions = useSummaries(project, 'condition').data;
  const places = useMemo(() => new Map(cells?.conditions.map((id, place) => [id, place])), [cells]);
  const titles = useMemo(() => new Map(conditions?.map(({ id, title }) => [id, title])), [conditions]);
  const all = useMemo(() => {
    if (report === undefined) return undefined;
    return basis === 'requirements' ? requirementItems(report, places) : conditionItems(report, places, titles);
  }, [basis, places, report, titles]);
  return useMemo(() => axisOf(all, found?.map((head) => head.id)), [all, found]);
}

type Report = NonNullable<ReturnType<typeof useCoverage>['data']>;
type Places = ReadonlyMap<ConditionId, number>;

function requirementItems({ requirements }: Report, places: Places): MatrixItem[] {
  return requirements.map(({ id, title, module, counts, conditions }) => ({ id, title, group: module, figure: { kind: 'shown', percent: percentDown(shownRatio(counts)) }, places: conditions.flatMap((c) => places.get(c.id) ?? []) }));
}

/** In the order of their requirements, each once. */
function conditionItems({ requirements }: Report, places: Places, titles: ReadonlyMap<ConditionId, string>): MatrixItem[] {
  const items = new Map<ConditionId, MatrixItem>();
  for (const { module, conditions } of requirements) {
    for (const { id, standings } of conditions) {
      if (items.has(id)) continue;
      const [shown, of] = [standings.filter((s) => s === 'shown').length, standings.filter((s) => s !== 'leftOut').length];
      const place = places.get(id);
      items.set(id, { id, title: titles.get(id) ?? '', group: module, figure: { kind: 'shown', percent: percentDown({ part: shown, of }) }, places: place === undefined ? [] : [place] });
    }
  }
  return [...items.values()];
}

function useTests({ tests, sides }: MatrixView, cells: Cells | undefined): Axis<MatrixItem> | undefined {
  const { project } = useFrame();
  const kind = ({ cases: 'case', scenarios: 'feature', suites: 'suite' } as const)[tests];
  const all = useSummaries(project, kind).data;
  const found = useSummaries(project, kind, useDeferredValue(sides.tests.query)).data;
  const shown = useMemo(() => itemsShown(cells), [cells]);
  const items = useMemo(() => {
    // Withdrawn ones that a query asks for are shown, too: they have nothing.
    const heads = new Map([...(all ?? []), ...(found ?? [])].map((head) => [head.id, head]));
    return all === undefined || found === undefined ? undefined : [...heads.values()].flatMap((head) => testItems(head, shown));
  }, [all, found, shown]);
  return useMemo(() => axisOf(items, found?.flatMap(testIds)), [found, items]);
}

type TestHead = NonNullable<ReturnType<typeof useSummaries<'case' | 'feature' | 'suite'>>['data']>[number];
/** Of each column its place, and the items it shows. */
type Shown = ReadonlyMap<string, { readonly place: number; readonly items: number }>;

function testItems(head: TestHead, shown: Shown): MatrixItem[] {
  const itemOf = (id: CoveringId | SuiteId, title: string, group: string): MatrixItem => {
    const known = shown.get(id);
    return { id, title, group, figure: { kind: 'shows', items: known?.items ?? 0 }, places: known === undefined ? [] : [known.place] };
  };
  switch (head.kind) {
    case 'case':
      return [itemOf(head.id, head.title, head.module)];
    case 'suite':
      return [itemOf(head.id, head.title, head.folder)];
    case 'feature':
      return head.scenarios.map((s) => itemOf(scenarioId(head.id, s.number), s.name, head.title));
  }
}

function testIds(head: TestHead): (CoveringId | SuiteId)[] {
  return head.kind === 'feature' ? head.scenarios.map((s) => scenarioId(head.id, s.number)) : [head.id];
}

function itemsShown(cells: Cells | undefined): Shown {
  const shown = new Map<string, { readonly place: number; items: number }>(cells?.columns.map((id, place) => [id, { place, items: 0 }]));
  if (cells === undefined) return shown;
  for (let at = 0; at < cells.cells.length; at += CELL_SIZE) {
    const column = shown.get(cells.columns[cells.cells[at + 1] ?? -1] ?? '');
    if (column !== undefined) column.items += cells.cells[at + 2] ?? 0;
  }
  return shown;
}

function axisOf(all: readonly MatrixItem[] | undefined, found: readonly string[] | undefined): Axis<MatrixItem> | undefined {
  if (all === undefined || found === undefined) return undefined;
  const ids = new Set(found);
  return { all, found: all.filter((item) => ids.has(item.id)) };
}
