import type { AxisOrder, AxisView } from '@caderno/core/matrix';
import { useCallback, useMemo } from 'react';
import { useParameters, type ParameterChange } from '../frame/index.ts';

/** What hangs on conditions, and what covers them: the two sides of a matrix. */
export const SIDES = ['basis', 'tests'] as const;
export type Side = (typeof SIDES)[number];
export const BASES = ['requirements', 'conditions'] as const;
export const TESTS = ['cases', 'scenarios', 'suites'] as const;
export type Basis = (typeof BASES)[number];
export type Tests = (typeof TESTS)[number];

export interface SideView extends AxisView {
  readonly query: string;
}

/** How the matrix is seen; all of it stands in the address. */
export interface MatrixView {
  readonly basis: Basis;
  readonly tests: Tests;
  /** What covers stands at the left, the basis across. */
  readonly turned: boolean;
  /** Rows and columns that meet nothing of what is in view are left out. */
  readonly onlyMet: boolean;
  /** Where the cursor was when one left: the ids of its row and its column. */
  readonly at: readonly [string, string];
  readonly sides: Readonly<Record<Side, SideView>>;
}

/** What a side is changed to; what is not said stays. */
export type SideChange = Partial<SideView>;

export interface MatrixViewing {
  readonly view: MatrixView;
  readonly setParameters: (change: ParameterChange) => void;
  readonly setSide: (side: Side, change: SideChange) => void;
}

export function useMatrixView(): MatrixViewing {
  const [search, setParameters] = useParameters();
  const view = useMemo(() => readView(search), [search]);
  const setSide = useCallback(
    (side: Side, { query, order, meets, alone, folded }: SideChange) =>
      setParameters({
        ...(query === undefined ? {} : { [`${side}.query`]: query }),
        ...(order === undefined ? {} : { [`${side}.order`]: orderText(order) }),
        ...(meets === undefined ? {} : { [`${side}.meets`]: meets }),
        ...(alone === undefined ? {} : { [`${side}.alone`]: alone ? 'yes' : null }),
        ...(folded === undefined ? {} : { [`${side}.folded`]: folded.size === 0 ? null : JSON.stringify([...folded]) }),
      }),
    [setParameters],
  );
  return useMemo(() => ({ view, setParameters, setSide }), [setParameters, setSide, view]);
}

function readView(search: URLSearchParams): MatrixView {
  return {
    basis: BASES.find((basis) => basis === search.get('of')) ?? 'requirements',
    tests: TESTS.find((tests) => tests === search.get('by')) ?? 'cases',
    turned: search.get('turned') === 'yes',
    onlyMet: search.get('met') === 'yes',
    at: [search.get('row') ?? '', search.get('column') ?? ''],
    sides: { basis: readSide(search, 'basis'), tests: readSide(search, 'tests') },
  };
}

function readSide(search: URLSearchParams, side: Side): SideView {
  const said = (name: string): string => search.get(`${side}.${name}`) ?? '';
  return { query: said('query'), order: readOrder(said('order')), meets: said('meets') || null, alone: said('alone') === 'yes', folded: new Set(readFolded(said('folded'))) };
}

/** An address may say anything: what is no list of names folds nothing. */
function readFolded(text: string): string[] {
  try {
    const list: unknown = JSON.parse(text);
    return Array.isArray(list) ? list.filter((group) => typeof group === 'string') : [];
  } catch {
    return [];
  }
}

/** `most`, `fewest`, the id of a partner, or nothing. */
export function readOrder(text: string): AxisOrder {
  if (text === '') return { kind: 'own' };
  return text === 'most' || text === 'fewest' ? { kind: text } : { kind: 'partner', id: text };
}

export function orderText(order: AxisOrder): string {
  if (order.kind === 'own') return '';
  return order.kind === 'partner' ? order.id : order.kind;
}
