import { parameterId, stepId, type Cover } from '../cases/index.ts';
import { lineId, textOf, type FeatureContent, type FeatureLine, type FeaturePart, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';
import { keywordFor } from './keywords.ts';
import { endedAs } from './moving.ts';
import { movedCover } from './movedCover.ts';
import { workOut, type OutlineNames, type PlacedSlot, type Worked } from './outlinePlan.ts';
import { NO_OWN_KINDS, type OwnKinds } from './ownKinds.ts';
import { takenApart } from './phrase.ts';
import { languageOf, readFeature, type LineRole, type ReadLine } from './reading.ts';
import type { ReadScenario } from './scenario.ts';
import { withTags } from './tagging.ts';
import { aligned } from './tidying.ts';

/** Whether the names can be those of an outline and its columns: each once, none that would be something else between bars or angle brackets. */
export function areOutlineNames({ name, columns }: OutlineNames): boolean {
  return !/[\r\n]/.test(name) && columns.every((column, i) => column === column.trim() && column !== '' && !/[<>|\\\r\n]/.test(column) && columns.indexOf(column) === i);
}

/**
 * The feature with these scenarios as one outline, which expands to exactly them (names too, as long as the name keeps
 * its placeholders). It stands where the first of them stood and is that one: its number, its lines, with what all
 * cover. What has tags of its own gets examples of its own; comments and descriptions of the others stand above their
 * rows. Null: they cannot be one, or a name is none.
 */
export function withOutline(content: FeatureContent, parts: readonly PartId[], names: OutlineNames, newId: NewId, own: OwnKinds = NO_OWN_KINDS): FeatureContent | null {
  const worked = workOut(content, parts, own);
  if (typeof worked === 'string' || !areOutlineNames(names) || names.columns.length !== worked.plan.columns.length) return null;
  const [first, ...others] = worked.plan.parts;
  const gone = new Set(others);
  const made = content.parts.flatMap((part) => (gone.has(part.id) ? [] : part.id === first ? [outlinePart(content, part, worked, names, newId)] : [part]));
  return { ...content, parts: endedAs(content.parts, made) };
}

/** A line of a part with what it is. */
interface OwnLine {
  readonly line: FeatureLine;
  /** In the file. */
  readonly at: number;
  readonly read: ReadLine;
}

const UNREAD: ReadLine = { role: 'unread', keyword: '', text: '', stepKind: 'other', items: [] };

function ownLines(content: FeatureContent, id: PartId | undefined): OwnLine[] {
  const { lines: read } = readFeature(textOf(content));
  const index = content.parts.findIndex((p) => p.id === id);
  const start = content.parts.slice(0, Math.max(0, index)).reduce((sum, p) => sum + p.lines.length, 0);
  return (content.parts[index]?.lines ?? []).map((line, i) => ({ line, at: start + i, read: read[start + i] ?? UNREAD }));
}

const NOT_THE_END: ReadonlySet<LineRole> = new Set(['blank', 'comment']);

function outlinePart(content: FeatureContent, part: FeaturePart, worked: Worked, names: OutlineNames, newId: NewId): FeaturePart {
  const own = ownLines(content, part.id);
  const language = languageOf(readFeature(textOf(content)));
  const common = tagsInCommon(content, worked.scenarios);
  const last = own.findLast((l) => !NOT_THE_END.has(l.read.role))?.line;
  const written = own.flatMap((l) => changedLine(l, own, worked, names, common, language));
  const kept = written.findLastIndex((line) => line.id === last?.id) + 1;
  const end = own.some((l) => l.line.text.endsWith('\r')) ? '\r' : '';
  const stepIndent = indentOf(own.find((l) => l.read.role === 'step')?.line.text ?? '');
  const examples = examplesLines(content, worked, names, common, stepIndent, language).map((text) => ({ id: lineId(newId()), text: text + end }));
  return { ...part, lines: [...written.slice(0, kept), ...examples, ...written.slice(kept)], covers: coversOf(content, worked, names) };
}

/** A line of the first scenario as the outline has it; a line of tags that keeps none goes. */
function changedLine({ line, at, read }: OwnLine, lines: readonly OwnLine[], worked: Worked, names: OutlineNames, common: readonly string[], language: string): FeatureLine[] {
  if (read.role === 'tags') {
    const text = withTags(line.text, (tag) => (common.includes(tag) ? tag : null));
    return text.trim() === '' ? [] : [saying(line, text)];
  }
  if (read.role === 'scenario') return [saying(line, line.text.replace(/^(\s*)[^\r]*/u, (_, indent: string) => `${indent}${`${keywordFor('scenarioOutline', language)} ${names.name}`.trim()}`))];
  const steps = worked.scenarios[0]?.steps ?? [];
  const step = steps.findLastIndex((s) => s.line <= at);
  if (read.role === 'step') return [saying(line, lineWithSlots(line.text, steps[step]?.text ?? '', worked, step, names))];
  if (read.role !== 'tableRow') return [line];
  const row = lines.filter((l) => l.at > (steps[step]?.line ?? at) && l.at < at && l.read.role === 'tableRow').length;
  return [saying(line, rowWithSlots(line.text, worked.slots.filter(({ of }) => of.kind === 'cell' && of.step === step && of.row === row), names))];
}

function saying(line: FeatureLine, text: string): FeatureLine {
  return text === line.text ? line : { ...line, text };
}

function lineWithSlots(line: string, text: string, worked: Worked, step: number, names: OutlineNames): string {
  const from = line.lastIndexOf(text);
  return line.slice(0, from) + stepWithSlots(text, worked, step, names) + line.slice(from + text.length);
}

/** The text of a step of the first scenario as the outline has it. */
function stepWithSlots(text: string, { slots, own }: Worked, step: number, names: OutlineNames): string {
  let [made, at] = ['', 0];
  const values = takenApart(text, own).values;
  for (const slot of slots) {
    const value = slot.of.kind === 'value' && slot.of.step === step ? values[slot.of.value] : undefined;
    if (value === undefined) continue;
    made += `${text.slice(at, value.at)}${slot.quote}<${names.columns[slot.column] ?? ''}>${slot.quote}`;
    at = value.at + value.text.length;
  }
  return made + text.slice(at);
}

function rowWithSlots(line: string, slots: readonly PlacedSlot[], names: OutlineNames): string {
  let cell = -1;
  return line.replace(/((?:[^\\|]|\\.)*)\|/gsu, (found, raw: string) => {
    const slot = slots.find((s) => s.of.kind === 'cell' && s.of.column === cell);
    cell += 1;
    return slot === undefined ? found : `${/^\s*/.exec(raw)?.[0] || ' '}<${names.columns[slot.column] ?? ''}>${/\s*$/.exec(raw)?.[0] || ' '}|`;
  });
}

/** Tags that stand above all of them, as the first has them. */
function tagsInCommon(content: FeatureContent, scenarios: readonly ReadScenario[]): string[] {
  const [first = [], ...others] = scenarios.map((s) => ownTags(content, s));
  return first.filter((tag) => others.every((tags) => tags.includes(tag)));
}

function ownTags(content: FeatureContent, { part }: ReadScenario): string[] {
  return ownLines(content, part).flatMap(({ read }) => (read.role === 'tags' ? read.items.map((i) => i.text) : []));
}

/** Tables of examples: one for each set of tags that the scenarios have beside those all have. */
function examplesLines(content: FeatureContent, { scenarios, plan }: Worked, { columns }: OutlineNames, common: readonly string[], stepIndent: string, language: string): string[] {
  const byTags = new Map<string, number[]>();
  scenarios.forEach((s, i) => {
    const tags = ownTags(content, s).filter((t) => !common.includes(t)).join(' ');
    byTags.set(tags, [...(byTags.get(tags) ?? []), i]);
  });
  return [...byTags].flatMap(([tags, rows]) => {
    const cells = aligned([columns, ...rows.map((i) => plan.columns.map((c) => c.values[i] ?? ''))].map((row) => `${stepIndent}  | ${row.map(escaped).join(' | ')} |`));
    const table = cells.slice(1).flatMap((row, n) => [...remarksOf(content, scenarios[rows[n] ?? 0], rows[n] === 0).map((text) => `${stepIndent}  # ${text}`), row]);
    return ['', ...(tags === '' ? [] : [`${stepIndent}${tags}`]), `${stepIndent}${keywordFor('examples', language)}`, cells[0] ?? '', ...table];
  });
}

/** What somebody wrote about a scenario that is a row now: comments and its description. Of the first they stand where they stood. */
function remarksOf(content: FeatureContent, scenario: ReadScenario | undefined, isFirst: boolean): string[] {
  if (scenario === undefined || isFirst) return [];
  const comments = ownLines(content, scenario.part).flatMap(({ line, read }) => (read.role === 'comment' ? [line.text.trim().replace(/^#\s*/, '')] : []));
  return [...comments, ...scenario.description.split('\n').filter((t) => t.trim() !== '')];
}

function escaped(cell: string): string {
  return cell.replace(/[\\|]/g, '\\$&').replaceAll('\n', '\\n');
}

function indentOf(line: string): string {
  return /^\s*/.exec(line)?.[0] ?? '';
}

/** What all of them cover, spoken of with the columns and the steps of the outline; of one condition that several cover what the first says first. */
function coversOf(content: FeatureContent, worked: Worked, names: OutlineNames): readonly Cover[] {
  const { scenarios, slots, own } = worked;
  const lines = content.parts.flatMap((p) => p.lines);
  const made = (scenarios[0]?.steps ?? []).map((s, step) => takenApart(stepWithSlots(s.text, worked, step, names), own).values);
  const idAt = (line: number | undefined): string => (line === undefined ? '' : (lines[line]?.id ?? ''));
  const covers = new Map<Cover['id'], Cover>();
  for (const scenario of scenarios) {
    const steps = new Map(scenario.steps.map((s, i) => [stepId(idAt(s.line)), stepId(idAt(scenarios[0]?.steps[i]?.line))]));
    const parameters = new Map(
      scenario.steps.flatMap((s, step) =>
        takenApart(s.text, own).values.map(({ place }, value) => {
          const slot = slots.find(({ of }) => of.kind === 'value' && of.step === step && of.value === value);
          const now = slot === undefined ? `${idAt(scenarios[0]?.steps[step]?.line)}.${made[step]?.[value]?.place ?? place}` : (names.columns[slot.column] ?? '');
          return [parameterId(`${idAt(s.line)}.${place}`), parameterId(now)] as const;
        }),
      ),
    );
    for (const cover of content.parts.find((p) => p.id === scenario.part)?.covers ?? []) {
      const moved = movedCover(cover, steps, (id) => parameters.get(id) ?? id);
      const known = covers.get(cover.id);
      covers.set(cover.id, known === undefined ? moved : together(known, moved));
    }
  }
  return [...covers.values()];
}

function together(a: Cover, b: Cover): Cover {
  return {
    ...a,
    seenVersion: Math.min(a.seenVersion, b.seenVersion),
    fields: [...a.fields, ...b.fields.filter((f) => !a.fields.some((known) => known.id === f.id))],
    outcome: a.outcome ?? b.outcome,
    expects: [...new Set([...a.expects, ...b.expects])],
    start: a.start ?? b.start,
    events: [...a.events, ...b.events.filter((e) => !a.events.some((known) => known.id === e.id))],
  };
}
