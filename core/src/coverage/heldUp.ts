import type { ConditionId, QuestionId } from '../artefacts/index.ts';
import type { QuestionSubject } from '../basis/index.ts';
import type { CoverageIndex } from './coverageIndex.ts';

/** How many items each open question holds up: those that stand as waiting and that it bears on. */
export function heldUp(index: CoverageIndex): Map<QuestionId, number> {
  const counts = new Map<QuestionId, number>();
  for (const [id, subjects] of index.questions.subjects()) {
    const waiting = new Set<string>();
    for (const subject of subjects) for (const item of waitingAt(index, subject)) waiting.add(item);
    counts.set(id, waiting.size);
  }
  return counts;
}

function waitingAt(index: CoverageIndex, subject: QuestionSubject): string[] {
  if (subject.kind === 'condition') return waitingOf(index, subject.id, subject.items);
  return [...(index.requirements.get(subject.id)?.conditions ?? [])].flatMap((entry) => waitingOf(index, entry.id, []));
}

function waitingOf(index: CoverageIndex, id: ConditionId, keys: readonly string[]): string[] {
  const counted = index.entries.get(id)?.counted;
  if (counted == null) return [];
  const items = counted.grounds.judge.items;
  return items.flatMap((item, place) => (counted.tally.standings[place] === 'waiting' && (keys.length === 0 || keys.includes(item.key)) ? [`${id}/${item.key}`] : []));
}
