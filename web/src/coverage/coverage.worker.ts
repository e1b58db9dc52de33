import { CoverageIndex, type ConditionCoverage, type Design, type DesignChange } from '@caderno/core/coverage';
import { expose } from 'comlink';

/** What the page asks of its coverage worker. */
export interface CoverageWorker {
  /** The coverage of the conditions of a design, with changes being typed taken in. */
  compute(design: Design, changes: readonly DesignChange[]): readonly ConditionCoverage[];
}

/** The index of a design is kept while only what is being typed changes. */
interface Kept {
  readonly name: string;
  readonly index: CoverageIndex;
  readonly changes: readonly DesignChange[];
}

let kept: Kept | null = null;

const worker: CoverageWorker = {
  compute(design, changes) {
    const name = nameOf(design);
    const same = kept?.name === name ? kept : null;
    const index = same?.index ?? new CoverageIndex(design);
    for (const change of same?.changes ?? []) index.apply(asStored(design, change));
    for (const change of changes) index.apply(change);
    kept = { name, index, changes };
    return index.coverages();
  },
};

function nameOf(design: Design): string {
  return JSON.stringify([design.conditions.map((c) => [c.id, c.version, c.state, c.meaningSince]), design.cases.map((c) => [c.id, c.version, c.state]), design.requirements, design.questions, design.riskWeights, design.mostItems]);
}

/** The change that takes an earlier one back to what the design holds. */
function asStored(design: Design, change: DesignChange): DesignChange {
  switch (change.kind) {
    case 'requirements':
      return { kind: 'requirements', inOutlineOrder: design.requirements };
    case 'condition':
      return { ...change, condition: design.conditions.find((c) => c.id === change.id) ?? null };
    case 'case':
      return { ...change, case: design.cases.find((c) => c.id === change.id) ?? null };
    case 'question':
      return { ...change, question: design.questions.find((q) => q.id === change.id) ?? null };
    case 'settings':
      return { ...change, settings: design };
  }
}

expose(worker);
