import type { ArtefactId, CaseId, ConditionId, RequirementId, SharedId } from '../artefacts/index.ts';
import { EMPTY_CASE, newCover, parameterId, parametersIn, parsePastedSteps, plainStep, stepId, textsOfCase, withoutLostSteps, type CaseContent, type Step } from '../cases/index.ts';
import type { OwnField } from '../fields/index.ts';
import { conditionsText, withCaseField, type CaseField, type TextField } from './caseField.ts';
import type { CaseEntry } from './caseEntries.ts';
import { fileStepOf, stepKey, type FileStep } from './stepText.ts';

/** What of the project a case that comes from a file grows into. */
export interface CaseFileProject {
  readonly fields: readonly OwnField[];
  /** Names of constants: in a text they are no parameters of the case. */
  readonly constants: ReadonlySet<string>;
  /** The version of a condition as it is now. */
  readonly versionOf: (id: ConditionId) => number;
  /** The conditions derived from a requirement. */
  readonly conditionsOf: (id: RequirementId) => readonly ConditionId[];
  /** Makes ids of steps and parameters. */
  readonly newId: () => string;
}

/** A new case of an entry. */
export function addedCase(entry: CaseEntry, project: CaseFileProject): CaseContent {
  let content: CaseContent = EMPTY_CASE;
  for (const [field, text] of Object.entries(entry.fields) as [TextField, string][]) content = withCaseField(content, field, text, project.fields);
  if (entry.steps !== null) content = withFileSteps(content, entry.steps, project);
  if (entry.conditions !== null) content = withConditions(content, entry.conditions, project);
  return declared(withRequirements(content, entry.requirements, project), project);
}

/** A case with some fields as a file has them. */
export function caseWith(content: CaseContent, entry: CaseEntry, taken: ReadonlySet<CaseField>, own: ReadonlyMap<CaseField, string>, project: CaseFileProject): CaseContent {
  let next = content;
  for (const field of taken) {
    const written = own.get(field);
    if (field === 'steps') next = withFileSteps(next, written === undefined ? (entry.steps ?? []) : parsePastedSteps(written).map(({ action, expected }) => ({ kind: 'plain' as const, action, expected })), project);
    else if (field === 'conditions') next = withConditions(next, entry.conditions ?? [], project);
    else if (field === 'requirements') next = withRequirements(next, entry.requirements, project);
    else next = withCaseField(next, field, written ?? entry.fields[field] ?? '', project.fields);
  }
  return declared(next, project);
}

/** What a file says of requirements that the case is not linked to yet, as a text; empty where nothing is missing. */
export function requirementsMissing(content: CaseContent, entry: CaseEntry, project: Pick<CaseFileProject, 'conditionsOf'>): string {
  const covered = new Set<ArtefactId>(content.covers.map((c) => c.id));
  return conditionsText(entry.requirements.filter((id) => !project.conditionsOf(id).some((condition) => covered.has(condition))));
}

/**
 * Steps as a file has them. A step that stands there already is the same, wherever it stands now, with its pictures and
 * the links to it; where nothing says the same, the one at its place, or with its action, is the changed one.
 */
function withFileSteps(content: CaseContent, steps: readonly FileStep[], { newId }: CaseFileProject): CaseContent {
  const left = content.steps.map((step) => ({ step, key: stepKey(fileStepOf(step)) }));
  const take = (is: (one: (typeof left)[number], at: number) => boolean): Step | undefined => {
    const at = left.findIndex(is);
    return at < 0 ? undefined : left.splice(at, 1)[0]?.step;
  };
  const same = steps.map((step) => take(({ key }) => key === stepKey(step)));
  const alike = steps.map((step, i) => same[i] ?? (step.kind === 'plain' ? take(({ step: old }) => old.kind === 'step' && old.action === step.action) : undefined));
  const next = steps.map((step, i): Step => {
    const kept = same[i];
    if (kept !== undefined) return kept;
    const old = alike[i] ?? (content.steps[i] !== undefined ? take(({ step: one }) => one === content.steps[i] && (one.kind === 'step') === (step.kind === 'plain')) : undefined);
    return changedStep(step, old, newId);
  });
  return withoutLostSteps(content, { ...content, steps: next });
}

function changedStep(step: FileStep, old: Step | undefined, newId: () => string): Step {
  const id = old?.id ?? stepId(newId());
  if (step.kind === 'plain') return { ...plainStep(id, step.action, step.expected), attachments: old?.kind === 'step' ? old.attachments : [] };
  const given = step.given.map(({ id: name, value }) => ({ id: name, value }));
  if (old !== undefined && old.kind !== 'step' && (old.kind === 'shared' ? old.shared : old.case) === step.of) return { ...old, arguments: given };
  return step.of.startsWith('S') ? { kind: 'shared', id, shared: step.of as SharedId, pinned: null, arguments: given } : { kind: 'call', id, case: step.of as CaseId, pinned: null, rows: { kind: 'mine' }, arguments: given };
}

/** Links that are there already stay as they are, with what carries them. */
function withConditions(content: CaseContent, ids: readonly ConditionId[], { versionOf }: CaseFileProject): CaseContent {
  const kept = content.covers.filter((c) => ids.includes(c.id));
  const added = ids.filter((id) => !content.covers.some((c) => c.id === id)).map((id) => newCover(id, versionOf(id)));
  return kept.length === content.covers.length && added.length === 0 ? content : { ...content, covers: [...kept, ...added] };
}

/** A requirement none of whose conditions is covered: the case is linked to all of them. */
function withRequirements(content: CaseContent, ids: readonly RequirementId[], project: CaseFileProject): CaseContent {
  const covered = new Set<ConditionId>(content.covers.map((c) => c.id));
  const missing = ids.map((id) => project.conditionsOf(id)).filter((conditions) => !conditions.some((id) => covered.has(id)));
  const added = [...new Set(missing.flat())].map((id) => newCover(id, project.versionOf(id)));
  return added.length === 0 ? content : { ...content, covers: [...content.covers, ...added] };
}

/** Parameters that texts use and nobody has declared are declared. */
function declared(content: CaseContent, { constants, newId }: CaseFileProject): CaseContent {
  const known = new Set(content.parameters.map((p) => p.name));
  const names = [...new Set(textsOfCase(content).flatMap(parametersIn))].filter((name) => !known.has(name) && !constants.has(name));
  if (names.length === 0) return content;
  return { ...content, parameters: [...content.parameters, ...names.map((name) => ({ id: parameterId(newId()), name, type: 'text' as const, default: '', description: '' }))] };
}
