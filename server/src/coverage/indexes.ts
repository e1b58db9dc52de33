import { isDeepStrictEqual } from 'node:util';
import { artefactId, parseScenarioId, type ArtefactKind, type FeatureId } from '@caderno/core/artefacts';
import { CoverageIndex, type DesignCase, type DesignChange } from '@caderno/core/coverage';
import type { Wording } from '@caderno/core/scenarios';
import { keyOf } from '@caderno/core/shared';
import { LRUCache } from 'lru-cache';
import type { UnitOfWork } from '../database/index.ts';
import { alteredSince, revisionOf, settingsChangedSince, type Altered } from '../log/index.ts';
import { changedLibrary, projectLibrary } from './designLibrary.ts';
import { markBroken } from '../artefacts/index.ts';
import { BrokenOnes, designCases, designConditions, designWording, designQuestions, designRequirements, designScenarios, designSettings } from './designRows.ts';

/** An index and the revision it is of. */
export interface KeptIndex {
  readonly revision: number;
  readonly index: CoverageIndex;
  /** With which its scenarios were taken as cases. */
  readonly wording: Wording;
}

/** Cases and conditions whose indexes a thread keeps; of more, the project asked longest ago is read again when it is asked. */
const MOST_KEPT = 15_000;

/** Beyond this many changed artefacts a fresh index is quicker than catching up. */
const MOST_CAUGHT_UP = 2_000;

/** Coverage indexes by project, each brought up to the project's revision when asked for. */
export class CoverageIndexes {
  readonly #kept = new LRUCache<string, KeptIndex>({ maxSize: MOST_KEPT, sizeCalculation: ({ index }) => Math.min(MOST_KEPT, 1 + index.cases.size + index.entries.size) });

  /** The index of a project at its present revision, read in one transaction. */
  async at(work: UnitOfWork, projectId: string): Promise<KeptIndex> {
    const revision = await revisionOf(work, projectId);
    const kept = this.#kept.get(projectId);
    const now: KeptIndex = { revision, ...(await bringUp(work, projectId, kept, revision)) };
    this.#kept.set(projectId, now);
    return now;
  }

  forget(projectId: string): void {
    this.#kept.delete(projectId);
  }
}

type Brought = Omit<KeptIndex, 'revision'>;

async function bringUp(work: UnitOfWork, projectId: string, kept: KeptIndex | undefined, revision: number): Promise<Brought> {
  if (kept === undefined) return fromScratch(work, projectId);
  if (kept.revision === revision) return kept;
  const changed = await alteredSince(work, projectId, kept.revision, MOST_CAUGHT_UP + 1);
  if (changed.length > MOST_CAUGHT_UP) return fromScratch(work, projectId);
  const settingsChanged = await settingsChangedSince(work, projectId, kept.revision);
  const wording = settingsChanged || changed.some((c) => c.kind === 'shared') ? await designWording(work, projectId) : kept.wording;
  for (const change of await readChanges(work, projectId, changed, { index: kept.index, wording })) kept.index.apply(change);
  if (!isSame(wording, kept.wording)) for (const change of await wordedAnew(work, projectId, wording)) kept.index.apply(change);
  if (settingsChanged) {
    kept.index.apply({ kind: 'requirements', inOutlineOrder: await designRequirements(work, projectId) });
    kept.index.apply({ kind: 'settings', settings: await designSettings(work, projectId) });
  }
  return { index: kept.index, wording };
}

function isSame(a: Wording, b: Wording): boolean {
  return isDeepStrictEqual([a.own.kinds, a.details], [b.own.kinds, b.details]);
}

/** Whether a phrase has its detail is seen in every scenario that says it, and so are values of own kinds: where these change, all that cover something are read again. It is rare. */
async function wordedAnew(work: UnitOfWork, projectId: string, wording: Wording): Promise<DesignChange[]> {
  const scenarios = new Map<FeatureId, DesignCase[]>();
  for (const scenario of await designScenarios(work, wording, COVERING_FEATURES, [projectId])) {
    const feature = parseScenarioId(scenario.id)?.feature;
    if (feature !== undefined) scenarios.set(feature, [...(scenarios.get(feature) ?? []), scenario]);
  }
  return [...scenarios].map(([id, all]) => ({ kind: 'feature', id, scenarios: all }));
}

/** Only features that cover a condition are read: many projects have thousands that do not. */
const COVERING_FEATURES = `a.project_id = $1 AND jsonb_array_length(a.facts->'covers') > 0`;

async function fromScratch(work: UnitOfWork, projectId: string): Promise<Brought> {
  const broken = new BrokenOnes();
  const wording = await designWording(work, projectId);
  const cases = await designCases(work, 'a.project_id = $1', [projectId], broken);
  const design = {
    requirements: await designRequirements(work, projectId),
    conditions: await designConditions(work, 'a.project_id = $1', [projectId], broken),
    cases: [...cases, ...(await designScenarios(work, wording, COVERING_FEATURES, [projectId], broken))],
    library: await projectLibrary(work, projectId, cases),
    questions: await designQuestions(work, 'a.project_id = $1', [projectId], broken),
    ...(await designSettings(work, projectId)),
  };
  await markBroken(work, projectId, broken.found);
  return { index: new CoverageIndex(design), wording };
}

/** What uses may lead to another content now: shared steps and data sets, and whatever is used at the version agreed last. */
function keysChanged(changed: readonly Altered[], index: CoverageIndex): string[] {
  return changed.flatMap(({ kind, number }) => {
    if (kind !== 'shared' && kind !== 'dataSet' && kind !== 'case') return [];
    const [latest, agreed] = [artefactId(kind, number), keyOf(artefactId(kind, number), 'agreed')];
    return [...(kind === 'case' ? [] : [latest]), ...(index.isUsedAs(agreed) ? [agreed] : [])];
  });
}

async function readChanges(work: UnitOfWork, projectId: string, changed: readonly Altered[], { index, wording }: Brought): Promise<DesignChange[]> {
  const numbers = (kind: ArtefactKind): number[] => changed.filter((c) => c.kind === kind).map((c) => c.number);
  const where = 'a.project_id = $1 AND a.number = ANY($2)';
  const broken = new BrokenOnes();
  const conditions = await designConditions(work, where, [projectId, numbers('condition')], broken);
  const cases = await designCases(work, where, [projectId, numbers('case')], broken);
  const scenarios = await designScenarios(work, wording, where, [projectId, numbers('feature')], broken);
  const questions = await designQuestions(work, where, [projectId, numbers('question')], broken);
  await markBroken(work, projectId, broken.found);
  const library = await changedLibrary(work, projectId, keysChanged(changed, index), cases);
  return [
    // Before the cases, which may be pinned to what is new in it.
    ...(library.entries.length + library.gone.length > 0 ? [{ kind: 'library' as const, ...library }] : []),
    ...(numbers('requirement').length > 0 ? [{ kind: 'requirements' as const, inOutlineOrder: await designRequirements(work, projectId) }] : []),
    ...numbers('condition').map((number) => {
      const id = artefactId('condition', number);
      return { kind: 'condition' as const, id, condition: conditions.find((c) => c.id === id) ?? null };
    }),
    ...numbers('case').map((number) => {
      const id = artefactId('case', number);
      return { kind: 'case' as const, id, case: cases.find((c) => c.id === id) ?? null };
    }),
    ...numbers('feature').map((number) => {
      const id = artefactId('feature', number);
      return { kind: 'feature' as const, id, scenarios: scenarios.filter((s) => s.id.startsWith(`${id}/`)) };
    }),
    ...numbers('question').map((number) => {
      const id = artefactId('question', number);
      return { kind: 'question' as const, id, question: questions.find((q) => q.id === id) ?? null };
    }),
  ];
}
