import { parameterId, stepId, type ParameterId } from '../cases/index.ts';
import { lineId, partId, textOf, type FeatureContent, type FeatureLine, type FeaturePart, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';
import { keywordFor } from './keywords.ts';
import { movedCover } from './movedCover.ts';
import { languageOf, readFeature, type LineRole } from './reading.ts';
import { outlineOf, type ReadScenario, type ScenarioStep } from './scenario.ts';

/** Steps that all scenarios of a feature, or of a rule, begin with. */
export interface SharedBeginning {
  /** Null: of a feature without rules. */
  readonly rule: PartId | null;
  readonly scenarios: number;
  /** As the first has them. */
  readonly steps: readonly ScenarioStep[];
}

/** What all begin with and could be a background: what holds before, the same word for word, with nothing of examples in it. Something must be left of each. */
export function sharedBeginnings(content: FeatureContent): SharedBeginning[] {
  const { scenarios, rules } = outlineOf(content);
  const written = scenarios.filter((s) => s.kind === 'scenario');
  return (rules.length === 0 ? [null] : rules.map((r) => r.part)).flatMap((rule) => {
    const within = written.filter((s) => s.rule === rule);
    const steps = within.length < 2 ? [] : beginningOf(within);
    return steps.length === 0 ? [] : [{ rule, scenarios: within.length, steps }];
  });
}

function beginningOf(scenarios: readonly ReadScenario[]): readonly ScenarioStep[] {
  const steps = scenarios[0]?.steps ?? [];
  const most = Math.min(...scenarios.map((s) => s.steps.length - 1));
  let count = 0;
  while (count < most && canStandAbove(steps, count) && scenarios.every((s) => isSame(s.steps[count], steps[count]))) count += 1;
  return steps.slice(0, count);
}

/** Whether a step tells what holds before, and the same for every row. */
function canStandAbove(steps: readonly ScenarioStep[], at: number): boolean {
  const step = steps[at];
  if (step === undefined || !(step.kind === 'given' || (step.kind === 'and' && at > 0))) return false;
  return !/<[^<>]+>/.test(JSON.stringify([step.text, step.table, step.docString]));
}

function isSame(a: ScenarioStep | undefined, b: ScenarioStep | undefined): boolean {
  return a !== undefined && b !== undefined && JSON.stringify([a.kind, a.text, a.table, a.docString]) === JSON.stringify([b.kind, b.text, b.table, b.docString]);
}

/** The feature with what all begin with as their background: a new one, or at the end of the one they have. What they cover is told of it. The very same where they begin with nothing alike. */
export function withBackground(content: FeatureContent, rule: PartId | null, newId: NewId): FeatureContent {
  const shared = sharedBeginnings(content).find((s) => s.rule === rule);
  if (shared === undefined) return content;
  const { scenarios } = outlineOf(content);
  const within = scenarios.filter((s) => s.kind === 'scenario' && s.rule === rule);
  const [first] = within;
  const lines = content.parts.flatMap((p) => p.lines);
  const begin = shared.steps[0]?.line ?? 0;
  const moved = lines.slice(begin, first?.steps[shared.steps.length]?.line);
  const parts = content.parts.map((part) => {
    const scenario = within.find((s) => s.part === part.id);
    return scenario === undefined ? part : withoutBeginning(content, part, scenario, shared.steps, lines, new Set(scenario === first ? moved : []));
  });
  return { ...content, parts: withSteps(content, parts, scenarios.find((s) => s.kind === 'background' && s.rule === rule)?.part, first?.part, moved, newId) };
}

const OF_STEPS: ReadonlySet<LineRole> = new Set(['step', 'tableRow', 'docStringEdge', 'docString', 'blank']);

/** A scenario without the steps; comments among them stay, unless they went along. */
function withoutBeginning(content: FeatureContent, part: FeaturePart, scenario: ReadScenario, shared: readonly ScenarioStep[], all: readonly FeatureLine[], moved: ReadonlySet<FeatureLine>): FeaturePart {
  const { lines: read } = readFeature(textOf(content));
  const from = scenario.steps[0]?.line ?? 0;
  const next = scenario.steps[shared.length];
  const gone = new Set(all.slice(from, next?.line).filter((line, i) => moved.has(line) || OF_STEPS.has(read[from + i]?.role ?? 'unread')));
  const nextLine = next?.kind === 'and' ? all[next.line] : undefined;
  const keyword = scenario.steps[0]?.keyword ?? '';
  // What went on with the steps above begins now.
  const begins = (line: FeatureLine): FeatureLine => (line === nextLine ? { ...line, text: line.text.replace(next?.keyword ?? '', () => keyword) } : line);
  const steps = new Map(shared.map((step, i) => [stepId(all[scenario.steps[i]?.line ?? -1]?.id ?? ''), stepId(all[step.line]?.id ?? '')]));
  // A value is named by its line and its place in it; the text is the same.
  const valueNow = (id: ParameterId): ParameterId => {
    const [, line = '', place = ''] = /^([^.]*)(\..*)$/.exec(id) ?? [];
    const now = steps.get(stepId(line));
    return now === undefined ? id : parameterId(`${now}${place}`);
  };
  return { ...part, lines: part.lines.filter((line) => !gone.has(line)).map(begins), covers: part.covers.map((cover) => movedCover(cover, steps, valueNow)) };
}

function withSteps(content: FeatureContent, parts: readonly FeaturePart[], background: PartId | undefined, first: PartId | undefined, moved: readonly FeatureLine[], newId: NewId): FeaturePart[] {
  const steps = moved.slice(0, moved.findLastIndex((line) => line.text.trim() !== '') + 1);
  if (background !== undefined) {
    return parts.map((part) => {
      if (part.id !== background) return part;
      const end = part.lines.findLastIndex((line) => line.text.trim() !== '') + 1;
      return { ...part, lines: [...part.lines.slice(0, end), ...steps, ...part.lines.slice(end)] };
    });
  }
  return parts.flatMap((part) => (part.id === first ? [newBackground(content, part, steps, newId), part] : [part]));
}

/** Set in as the scenario it comes to stand above. */
function newBackground(content: FeatureContent, above: FeaturePart, steps: readonly FeatureLine[], newId: NewId): FeaturePart {
  const read = readFeature(textOf(content));
  const keyword = keywordFor('background', languageOf(read));
  const indent = /^\s*/.exec(above.lines.find((line) => !/^\s*(?:[@#]|$)/u.test(line.text))?.text ?? '')?.[0] ?? '';
  const end = steps[0]?.text.endsWith('\r') === true ? '\r' : '';
  const line = (text: string): FeatureLine => ({ id: lineId(newId()), text: text + end });
  return { id: partId(newId()), kind: 'background', number: 0, lines: [line(`${indent}${keyword}`), ...steps, line('')], covers: [] };
}
