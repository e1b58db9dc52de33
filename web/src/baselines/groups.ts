import { changedItem, type FrozenChange } from '@caderno/core/baselines';
import type { ArtefactId, ConditionId, RequirementId } from '@caderno/core/artefacts';
import { useMemo } from 'react';
import { useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** How changes are put together: by what became of them, by module, by the requirement they are for. */
export type Grouping = 'what' | 'module' | 'requirement';
export const GROUPINGS: readonly { readonly value: Grouping; readonly name: string }[] = [{ value: 'what', name: 'what became of it' }, { value: 'module', name: 'module' }, { value: 'requirement', name: 'requirement' }];

export const KIND_WORD: Record<FrozenChange['kind'], string> = { added: 'Added', changed: 'Changed', state: 'The same, but stands otherwise', gone: 'Withdrawn or gone' };
export const KIND_INK: Record<FrozenChange['kind'], string> = { added: 'text-pine', changed: 'text-ochre-ink', state: 'text-ink2', gone: 'text-brick' };
const ORDER: readonly FrozenChange['kind'][] = ['changed', 'added', 'gone', 'state'];

export interface ChangeGroup {
  readonly name: string;
  /** Empty: each line says what became of it. */
  readonly ink: string;
  readonly changes: readonly FrozenChange[];
}

type RequirementsOf = (id: ArtefactId) => readonly string[];

/** The changes in groups; one that is for several requirements stands with each. */
export function groupsOf(changes: readonly FrozenChange[], by: Grouping, requirementsOf: RequirementsOf): ChangeGroup[] {
  if (by === 'what') return ORDER.flatMap((kind) => groupOf(KIND_WORD[kind], KIND_INK[kind], changes.filter((c) => c.kind === kind)));
  const namesOf = (change: FrozenChange): readonly string[] => {
    const { id, module } = changedItem(change);
    return by === 'module' ? [module] : requirementsOf(id);
  };
  const groups = new Map<string, FrozenChange[]>();
  for (const change of changes) {
    const names = namesOf(change);
    for (const name of names.length === 0 ? [''] : names) groups.set(name, [...(groups.get(name) ?? []), change]);
  }
  const none = by === 'module' ? 'Without a module' : 'For no requirement';
  return [...groups].sort(([a], [b]) => (a === '' ? 1 : b === '' ? -1 : a.localeCompare(b, undefined, { numeric: true }))).flatMap(([name, some]) => groupOf(name === '' ? none : name, '', some));
}

function groupOf(name: string, ink: string, changes: readonly FrozenChange[]): ChangeGroup[] {
  return changes.length === 0 ? [] : [{ name, ink, changes }];
}

const NO_REQUIREMENTS: RequirementsOf = () => [];

/** The requirements that artefacts are for, by what is known of the project now: of a condition those it comes from, of a case those of what it covers. */
export function useRequirementsOf(wanted: boolean): RequirementsOf {
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data;
  const conditions = useSummaries(project, 'condition').data;
  const cases = useSummaries(project, 'case').data;
  const features = useSummaries(project, 'feature').data;
  return useMemo(() => {
    if (!wanted) return NO_REQUIREMENTS;
    const named = new Map((requirements ?? []).map((r) => [r.id, `${r.id} ${r.title}`]));
    const ofCondition = new Map((conditions ?? []).map((c) => [c.id, c.requirements]));
    const covered = (ids: readonly ConditionId[]): readonly RequirementId[] => ids.flatMap((id) => ofCondition.get(id) ?? []);
    const of = new Map<ArtefactId, readonly RequirementId[]>([
      ...(requirements ?? []).map((r) => [r.id, [r.id]] as const),
      ...ofCondition,
      ...(cases ?? []).map((c) => [c.id, covered(c.covers)] as const),
      ...(features ?? []).map((f) => [f.id, [...f.requirements, ...covered(f.covers)]] as const),
    ]);
    return (id) => [...new Set((of.get(id) ?? []).map((r) => named.get(r) ?? r))];
  }, [cases, conditions, features, requirements, wanted]);
}
