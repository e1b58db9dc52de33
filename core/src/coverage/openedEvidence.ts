import type { CaseId, CoveringId, ConditionId } from '../artefacts/index.ts';
import type { Cover } from '../cases/index.ts';
import type { CarriedField, FieldValue, ModelJudge, WalkedEvent } from '../conditions/index.ts';
import type { OpenedCase, OpenedPlace, OpenedStep } from '../shared/index.ts';
import type { Evidence } from './evidence.ts';
import { ShownListMaker } from './shownList.ts';
import { tellingOf, tells, type IsGiven, type Telling, type ToldCondition } from './telling.ts';

/** A row that calls run more often than this is not judged through them: what it shows there is left open. */
const MOST_RUNS = 2_000;

/** The covers of a condition in an opened case: its own, and those of the cases it calls. */
function placesCovering(opened: OpenedCase, condition: ConditionId): { readonly place: OpenedPlace; readonly cover: Cover }[] {
  return opened.cases.flatMap((place) => place.content.covers.flatMap((cover) => (cover.id === condition ? [{ place, cover }] : [])));
}

/** The conditions that a case covers itself or through the cases it calls, with the version seen earliest of each. */
export function conditionsCovered(opened: OpenedCase): ReadonlyMap<ConditionId, number> {
  const seen = new Map<ConditionId, number>();
  for (const { content } of opened.cases) for (const { id, seenVersion } of content.covers) seen.set(id, Math.min(seen.get(id) ?? seenVersion, seenVersion));
  return seen;
}

/**
 * What a case that uses others shows of a condition with the rows it runs: its own steps and those of shared steps speak for its own links;
 * the values and steps of a case it calls, as they come to it from the caller, for the links of that case.
 */
export function openedEvidence(id: CoveringId, rows: Evidence['rows'], opened: OpenedCase, condition: { readonly id: ConditionId; readonly content: ToldCondition }, judge: ModelJudge, fields: readonly CarriedField[]): Evidence {
  const list = new ShownListMaker(rows.length);
  const counts = new Array<number>(judge.size).fill(0);
  const covering = placesCovering(opened, condition.id).map((c) => ({ ...c, speaking: speakingAt(opened, c.place, c.cover, condition.content) }));
  const through = new Set<CaseId>();
  rows.forEach((_, row) => {
    opened.turn(0, row);
    const shown = new Set<number>();
    for (const { place, cover, speaking } of covering) {
      const found = shownAt(opened, place, cover, speaking, judge, fields);
      for (const item of found) shown.add(item);
      if (found.size > 0 && place.id !== null) through.add(place.id);
    }
    for (const item of shown) counts[item] = (counts[item] ?? 0) + 1;
    list.add([...shown].sort((a, b) => a - b));
  });
  return { case: id, through: [...through], rows, shown: list.finish(), counts, carriers: [], told: null };
}

/** What somebody could tell by at a place, asked with the values that are bound. */
type Speaking = () => boolean;

function speakingAt(opened: OpenedCase, place: OpenedPlace, cover: Cover, condition: ToldCondition): Speaking {
  const lines = linesOf(opened, place);
  const telling: Telling = tellingOf(lines.map((line) => line.step), place.content, cover, condition);
  // A text has its meaning where it stands: in the case, or in the shared steps that are opened there.
  const scopes = telling.results.map(({ step }) => lines.find((line) => line.step === step)?.scope ?? place.scope);
  const isGiven: IsGiven = (name, at) => {
    const value = (scopes[at] ?? place.scope).meaningOf(name);
    return value.kind === 'value' && value.text.trim() !== '';
  };
  return () => tells(telling, isGiven);
}

function shownAt(opened: OpenedCase, place: OpenedPlace, cover: Cover, speaks: Speaking, judge: ModelJudge, fields: readonly CarriedField[]): ReadonlySet<number> {
  const { showing } = judge;
  const inRuns = (found: () => readonly number[]): ReadonlySet<number> => {
    const shown = new Set<number>();
    for (const _ of runsOf(opened, place)) if (speaks()) for (const item of found()) shown.add(item);
    return shown;
  };
  switch (showing.kind) {
    case 'refused':
      return new Set();
    case 'expectation':
      return inRuns(() => [0]);
    case 'path': {
      const found = showing.shown(cover.start, eventsAt(opened, place, cover));
      return inRuns(() => found);
    }
    case 'values': {
      const names = fields.map((field) => place.content.parameters.find((p) => p.id === cover.fields.find((f) => f.id === field.id)?.parameter)?.name ?? null);
      if (names.every((name) => name === null)) return new Set();
      return inRuns(() => showing.shown(names.map((name) => (name === null ? null : valueAt(place, name)))));
    }
  }
}

function valueAt(place: OpenedPlace, name: string): FieldValue | null {
  const value = place.scope.meaningOf(name);
  return value.kind === 'value' || value.kind === 'missing' ? value : null;
}

/** Binds every run of a place for the row of the case that is bound, one after the other; none when there are too many. */
function* runsOf(opened: OpenedCase, { wheels }: OpenedPlace): Generator<void> {
  const turning = wheels.filter((wheel) => wheel > 0);
  const runs = turning.reduce((n, wheel) => n * (opened.wheels[wheel] ?? 1), 1);
  if (runs > MOST_RUNS) return;
  for (let run = 0; run < runs; run += 1) {
    let rest = run;
    for (const wheel of turning) {
      const size = opened.wheels[wheel] ?? 1;
      opened.turn(wheel, rest % size);
      rest = Math.floor(rest / size);
    }
    yield;
  }
}

type OpenedLine = Extract<OpenedStep, { kind: 'step' }>;

/**
 * The lines a case's own links may name: its steps and those of shared steps in it, not those of cases it calls. A
 * step of the case goes before one of the same id in shared steps.
 */
function linesOf(opened: OpenedCase, place: OpenedPlace): OpenedLine[] {
  const own = new Set<string>(place.content.steps.map((s) => s.id));
  return opened.steps.slice(place.from, place.to).filter((line): line is OpenedLine => {
    const inner = line.through.slice(place.depth);
    return line.kind === 'step' && inner.every(({ use }) => use.kind === 'shared') && (inner.length === 0 || !own.has(line.step.id));
  });
}

/** The events that steps carry, in order; one carried by a use comes before those of its steps. */
function eventsAt(opened: OpenedCase, place: OpenedPlace, cover: Cover): WalkedEvent[] {
  const named = new Set<string>(linesOf(opened, place).map((line) => line.step.id));
  const walked: WalkedEvent[] = [];
  let inUse: string | null = null;
  for (const line of opened.steps.slice(place.from, place.to)) {
    const use = line.through[place.depth]?.use.id ?? null;
    const event = use === null || use === inUse ? undefined : cover.events.find((e) => e.id === use);
    if (event !== undefined) walked.push(event);
    inUse = use;
    const own = line.kind === 'step' && named.has(line.step.id) ? cover.events.find((e) => e.id === line.step.id) : undefined;
    if (own !== undefined) walked.push(own);
  }
  return walked;
}
