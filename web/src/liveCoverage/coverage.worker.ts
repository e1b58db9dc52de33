import { parseScenarioId } from '@caderno/core/artefacts';
import { CoverageIndex, type ConditionCoverage, type Design, type DesignChange } from '@caderno/core/coverage';
import { expose } from 'comlink';
import { Receiver, type Parcel } from '../worker/index.ts';

/** What the page asks of its coverage worker. A design is sent once, when it is opened; then only what is being typed. */
export interface CoverageWorker {
  /** Answers the number by which the design is asked for. */
  open(design: Design): number;
  /** The coverage of the conditions of an open design, with a change being typed (or null) taken in. Nothing of one that is closed. */
  compute(opened: number, change: Parcel): readonly ConditionCoverage[];
  close(opened: number): void;
}

interface Opened {
  readonly design: Design;
  readonly index: CoverageIndex;
  readonly changes: Receiver<DesignChange | null>;
  change: DesignChange | null;
}

const opened = new Map<number, Opened>();
let last = 0;

const worker: CoverageWorker = {
  open(design) {
    last += 1;
    opened.set(last, { design, index: new CoverageIndex(design), changes: new Receiver(), change: null });
    return last;
  },
  compute(number, parcel) {
    const at = opened.get(number);
    if (at === undefined) return [];
    const change = at.changes.unpack(parcel);
    // A newer change of the same artefact takes the place of the one before.
    if (at.change !== null && (change === null || !sameSubject(at.change, change))) at.index.apply(asStored(at.design, at.change));
    if (change !== null) at.index.apply(change);
    at.change = change;
    return at.index.coverages();
  },
  close(number) {
    opened.delete(number);
  },
};

function sameSubject(a: DesignChange, b: DesignChange): boolean {
  return a.kind === b.kind && ('id' in a ? a.id : '') === ('id' in b ? b.id : '');
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
    case 'feature':
      return { ...change, scenarios: design.cases.filter((c) => parseScenarioId(c.id)?.feature === change.id) };
    case 'library':
      return { kind: 'library', entries: design.library.filter((e) => change.gone.includes(e.key) || change.entries.some((c) => c.key === e.key)), gone: change.entries.map((e) => e.key).filter((key) => !design.library.some((e) => e.key === key)) };
    case 'question':
      return { ...change, question: design.questions.find((q) => q.id === change.id) ?? null };
    case 'settings':
      return { ...change, settings: design };
  }
}

expose(worker);
