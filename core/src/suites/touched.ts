import { kindOfId, type ArtefactId, type ConditionId, type CoveringId, type RequirementId } from '../artefacts/index.ts';
import type { FeatureContent, FeaturePart, PartId } from '../scenarios/index.ts';
import { withMembers } from './entries.ts';
import type { EntryId, SuiteEntry } from './suite.ts';
import { ownerOf } from './suiteKind.ts';

/** A case or scenario that a change touches, and what of the change does. */
export interface TouchedMember {
  readonly of: CoveringId;
  /** What changed: itself, what it uses, or what it covers; in working order. */
  readonly through: readonly ArtefactId[];
  /** Names of constants with another value, that stand in it or in what it uses. */
  readonly constants: readonly string[];
  /** The rows of it that are touched, where nothing else of it is; null: all of it. */
  readonly rows: readonly string[] | null;
}

/** Why something is touched; the first that holds. */
export const TOUCHES = ['itself', 'uses', 'covers'] as const;
export type Touch = (typeof TOUCHES)[number];

/** The strongest reason: it is another one itself, what it uses is, or what it is to show. */
export function touchOf({ of, through, constants }: TouchedMember): Touch {
  const owner = ownerOf(of);
  if (through.includes(owner)) return 'itself';
  return constants.length > 0 || through.some((id) => ['case', 'shared', 'dataSet'].includes(kindOfId(id))) ? 'uses' : 'covers';
}

/** A suite of what a change touches, in a part for each reason; the names of the parts are the caller's. */
export function touchedEntries(touched: readonly TouchedMember[], nameOf: (touch: Touch) => string, newId: () => EntryId): SuiteEntry[] {
  return TOUCHES.flatMap((touch): SuiteEntry[] => {
    const members = touched.filter((t) => touchOf(t) === touch).map((t) => t.of);
    return members.length === 0 ? [] : [{ kind: 'part', id: newId(), title: nameOf(touch), depth: 1, rule: null, runsIn: null }, ...withMembers([], members, null, newId)];
  });
}

/** What of a change reaches a feature. */
export interface FeatureTouch {
  /** The feature as it was before; null: it was not there. Absent: it is the same. */
  readonly before?: FeatureContent | null;
  readonly conditions: ReadonlySet<ConditionId>;
  readonly requirements: ReadonlySet<RequirementId>;
  /** Whether something it uses changed, through a phrase that is given in full. */
  readonly used: boolean;
  /** Constants with another value that stand in the feature. */
  readonly constants: readonly string[];
}

/** A scenario that is touched, with those of the constants that stand in it or before it. */
export interface TouchedScenario {
  readonly number: number;
  readonly constants: readonly string[];
}

/**
 * The scenarios of a feature that a change touches: those that are written otherwise or with constants that changed, or under another background, rule or head,
 * and those that cover or serve something that changed. What a phrase means touches all.
 */
export function touchedScenarios({ parts, requirements }: Pick<FeatureContent, 'parts' | 'requirements'>, { before, conditions, requirements: changed, used, constants }: FeatureTouch): TouchedScenario[] {
  const served = requirements.filter((r) => changed.has(r.id));
  const all = used || before === null || served.some((r) => r.parts.length === 0);
  const [was, is] = [before?.parts ?? [], parts].map(scenariosInPlace);
  const isWritten = (id: PartId): boolean => before !== undefined && was?.get(id) !== is?.get(id);
  return parts.flatMap((part): TouchedScenario[] => {
    if (part.kind !== 'scenario') return [];
    const text = is?.get(part.id) ?? '';
    const standing = constants.filter((name) => text.includes(`<${name}>`));
    const isTouched = all || standing.length > 0 || isWritten(part.id) || part.covers.some((cover) => conditions.has(cover.id)) || served.some((r) => r.parts.includes(part.id));
    return isTouched ? [{ number: part.number, constants: standing }] : [];
  });
}

/** Each scenario with all that is said before it: the head of the file, the background, the rule it stands in and the background of that. */
function scenariosInPlace(parts: readonly FeaturePart[]): Map<PartId, string> {
  const found = new Map<PartId, string>();
  let [head, background, rule, inRule] = ['', '', '', ''];
  for (const part of parts) {
    const text = said(part);
    switch (part.kind) {
      case 'head':
        head = text;
        break;
      case 'background':
        if (rule === '') background = text;
        else inRule = text;
        break;
      case 'rule':
        [rule, inRule] = [text, ''];
        break;
      case 'scenario':
        found.set(part.id, JSON.stringify([head, background, rule, inRule, text]));
    }
  }
  return found;
}

/** Which version of a condition somebody has looked at is no part of what is said. */
function said({ lines, covers }: FeaturePart): string {
  return JSON.stringify([lines.map((line) => line.text), covers], (key, value: unknown) => (key === 'seenVersion' ? undefined : value));
}
