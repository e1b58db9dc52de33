import type { CaseId, SharedId } from '../artefacts/index.ts';
import { isParameterName, isUse, parametersIn, renameInText, textsOfCase, textsOfStep, usedBy, withCaseTexts, withTexts, type CaseContent, type Use } from '../cases/index.ts';
import type { Constants } from './constants.ts';
import { stepsUsed, type Library, type UsedSteps } from './library.ts';
import type { StepsOwnerId } from './reuseGraph.ts';
import type { SharedContent } from './sharedSteps.ts';
import { fixedByRows, openParameters } from './surfacing.ts';

/** A case or shared steps, as they stand now. */
export type Reusable =
  | { readonly kind: 'case'; readonly id: CaseId; readonly content: CaseContent }
  | { readonly kind: 'shared'; readonly id: SharedId; readonly content: SharedContent };

/** Why a parameter cannot be renamed everywhere without changing what is executed. */
export type RenameHindrance =
  | { readonly code: 'name_invalid'; readonly name: string }
  /** The new name means something there already. */
  | { readonly code: 'name_in_use'; readonly id: StepsOwnerId; readonly name: string }
  /** A constant of the project stands in for one of the two names where a value is missing. */
  | { readonly code: 'name_of_constant'; readonly name: string }
  /** A pinned version, or the agreed one, takes it by its name, and a version is not changed. */
  | { readonly code: 'pinned_takes_it'; readonly id: StepsOwnerId; readonly used: StepsOwnerId; readonly version: number | 'agreed' };

/** Something that the renaming changes. */
export interface Renamed {
  readonly artefact: Reusable;
  /** It has the parameter itself, or hands it through; otherwise it only gives an argument to one that does. */
  readonly hasIt: boolean;
}

export type Renaming =
  | { readonly kind: 'done'; readonly renamed: readonly Renamed[] }
  | { readonly kind: 'hindered'; readonly hindrances: readonly RenameHindrance[] }
  /** What uses these has to be known first. */
  | { readonly kind: 'missing'; readonly usersOf: readonly StepsOwnerId[] };

/** What a renaming is worked out from. */
export interface RenameGrounds {
  /** Everything that the artefacts use, all the way down. */
  readonly library: Library;
  readonly constants: Constants;
  /** The direct users of an artefact, at any version; null: not read yet. */
  readonly usersOf: (id: StepsOwnerId) => readonly Reusable[] | null;
  /** An artefact as it stands now; undefined: it is not known. */
  readonly artefact: (id: StepsOwnerId) => Reusable | undefined;
}

/**
 * Renames a parameter everywhere it is the same one: where it is declared, in all texts, in what it is handed to by its
 * name and in what it comes from by its name, and in the arguments of all users. Every instance stays what it was, but
 * for the name. Refused, not done by half, where that cannot be: see {@link RenameHindrance}.
 */
export function renameEverywhere(start: StepsOwnerId, from: string, to: string, grounds: RenameGrounds): Renaming {
  if (!isParameterName(to)) return { kind: 'hindered', hindrances: [{ code: 'name_invalid', name: to }] };
  const constant = [from, to].find((name) => grounds.constants.has(name));
  if (constant !== undefined) return { kind: 'hindered', hindrances: [{ code: 'name_of_constant', name: constant }] };
  const family = familyOf(start, from, to, grounds);
  if (family.missing.length > 0) return { kind: 'missing', usersOf: family.missing };
  const hindrances = [...[...family.members.values()].flatMap((member) => hindrancesIn(member, from, to, grounds)), ...family.hindrances];
  if (hindrances.length > 0) return { kind: 'hindered', hindrances };
  // Where it was asked for comes first; what has it counts as that, even if it also gives it an argument.
  const touched = new Map([...family.members, ...[...family.givers].filter(([id]) => !family.members.has(id))]);
  return {
    kind: 'done',
    renamed: [...touched.values()].map((artefact) => {
      const hasIt = family.members.has(artefact.id);
      return { artefact: renamedIn(artefact, from, to, hasIt, (use) => use.pinned === null && family.members.has(usedBy(use))), hasIt };
    }),
  };
}

interface Family {
  /** What has the parameter. */
  readonly members: ReadonlyMap<StepsOwnerId, Reusable>;
  /** What gives an argument to one of them. */
  readonly givers: ReadonlyMap<StepsOwnerId, Reusable>;
  readonly hindrances: readonly RenameHindrance[];
  readonly missing: readonly StepsOwnerId[];
}

/** All that hands the parameter on by its name, from one artefact in both directions. */
function familyOf(start: StepsOwnerId, name: string, to: string, grounds: RenameGrounds): Family {
  const members = new Map<StepsOwnerId, Reusable>();
  const givers = new Map<StepsOwnerId, Reusable>();
  const hindrances: RenameHindrance[] = [];
  const missing: StepsOwnerId[] = [];
  const queue: StepsOwnerId[] = [start];
  for (const id of queue) {
    const member = grounds.artefact(id);
    if (member === undefined || members.has(id)) continue;
    members.set(id, member);
    for (const use of member.content.steps.filter(isUse).filter((u) => takesByName(u, name, grounds.library))) {
      if (use.pinned === null) queue.push(usedBy(use));
      else hindrances.push({ code: 'pinned_takes_it', id, used: usedBy(use), version: use.pinned });
    }
    const users = grounds.usersOf(id);
    if (users === null) missing.push(id);
    for (const user of users ?? []) {
      const uses = user.content.steps.filter((s): s is Use => isUse(s) && s.pinned === null && usedBy(s) === id);
      // An argument that goes nowhere would suddenly go there.
      if (uses.some((u) => givesArgument(u, to))) hindrances.push({ code: 'name_in_use', id: user.id, name: to });
      if (uses.some((u) => takesByName(u, name, grounds.library))) queue.push(user.id);
      else if (uses.some((u) => givesArgument(u, name))) givers.set(user.id, user);
    }
  }
  return { members, givers, hindrances, missing };
}

/** Whether what is used takes the parameter from its user by equal name: it is open there, and nothing else gives it a value. */
function takesByName(use: Use, name: string, library: Library): boolean {
  const used = stepsUsed(library, use);
  if (used === undefined || givesArgument(use, name) || !isOpenIn(used, name, library)) return false;
  return !(use.kind === 'call' && used.kind === 'case' && fixedByRows(used.content, use.rows, library).has(name));
}

function givesArgument(use: Use, name: string): boolean {
  return use.arguments.some((a) => a.id === name && a.value !== '');
}

function isOpenIn(used: UsedSteps, name: string, library: Library): boolean {
  return openParameters(used, library).some((p) => p.name === name);
}

/** Where the new name means something already: declared, in a text, or surfacing from what is used. */
function hindrancesIn(member: Reusable, from: string, to: string, { library }: RenameGrounds): RenameHindrance[] {
  const { steps, parameters } = member.content;
  const isTaken =
    parameters.some((p) => p.name === to) ||
    textsOf(member).some((text) => parametersIn(text).includes(to)) ||
    steps.filter(isUse).some((use) => use.arguments.some((a) => a.id === to) || isOpenFor(use, to, library)) ||
    // A declaration apart from the others of its name is no part of the family, and would be torn from them.
    parameters.filter((p) => p.name === from).length > 1;
  return isTaken ? [{ code: 'name_in_use', id: member.id, name: to }] : [];
}

function isOpenFor(use: Use, name: string, library: Library): boolean {
  const used = stepsUsed(library, use);
  return used !== undefined && isOpenIn(used, name, library);
}

function textsOf(artefact: Reusable): readonly string[] {
  return artefact.kind === 'case' ? textsOfCase(artefact.content) : [artefact.content.purpose, ...artefact.content.steps.flatMap(textsOfStep)];
}

function renamedIn(artefact: Reusable, from: string, to: string, hasIt: boolean, isOfFamily: (use: Use) => boolean): Reusable {
  const inTexts = hasIt ? withRenamedTexts(artefact, from, to) : artefact;
  const withArguments = <C extends CaseContent | SharedContent>(content: C): C => ({
    ...content,
    steps: content.steps.map((step) => (isUse(step) && isOfFamily(step) ? { ...step, arguments: step.arguments.map((a) => (a.id === from ? { ...a, id: to } : a)) } : step)),
  });
  return inTexts.kind === 'case' ? { ...inTexts, content: withArguments(inTexts.content) } : { ...inTexts, content: withArguments(inTexts.content) };
}

function withRenamedTexts(artefact: Reusable, from: string, to: string): Reusable {
  const rename = (text: string): string => renameInText(text, from, to);
  const parameters = artefact.content.parameters.map((p) => (p.name === from ? { ...p, name: to } : p));
  if (artefact.kind === 'case') return { ...artefact, content: withCaseTexts({ ...artefact.content, parameters }, rename) };
  const { content } = artefact;
  return { ...artefact, content: { ...content, parameters, purpose: rename(content.purpose), steps: content.steps.map((s) => withTexts(s, rename)) } };
}

/** How many places of an artefact the renaming changes: the declaration, texts in which it stands, arguments. */
export function placesRenamed(before: Reusable, after: Reusable): number {
  const pairs = (list: readonly unknown[], other: readonly unknown[]): number => list.filter((value, i) => JSON.stringify(value) !== JSON.stringify(other[i])).length;
  return pairs(textsOf(before), textsOf(after)) + pairs(before.content.parameters, after.content.parameters) + pairs(before.content.steps.filter(isUse).flatMap((u) => u.arguments.map((a) => a.id)), after.content.steps.filter(isUse).flatMap((u) => u.arguments.map((a) => a.id)));
}
