import type { ConditionId, QuestionId, RequirementId } from '../artefacts/index.ts';
import type { QuestionSubject } from '../basis/index.ts';
import type { WaitingItems } from './conditionCoverage.ts';
import type { DesignQuestion } from './design.ts';

type SubjectId = QuestionSubject['id'];

const NOTHING: ReadonlySet<string> = new Set();

/** The open questions of a project by what they are about. Mutable, as the index is. */
export class OpenQuestions {
  readonly #open = new Map<QuestionId, readonly QuestionSubject[]>();
  readonly #bySubject = new Map<SubjectId, Set<QuestionId>>();

  constructor(questions: readonly DesignQuestion[]) {
    for (const question of questions) this.put(question.id, question);
  }

  /** Takes in a question as it stands now; answers whatever it was or is about. */
  put(id: QuestionId, question: DesignQuestion | null): SubjectId[] {
    const before = this.#open.get(id) ?? [];
    const open = question !== null && question.state !== 'withdrawn' && question.content.status === 'open';
    const now = open ? question.content.about.filter((s) => s.holds) : [];
    for (const subject of before) this.#bySubject.get(subject.id)?.delete(id);
    for (const subject of now) this.#bySubject.set(subject.id, (this.#bySubject.get(subject.id) ?? new Set()).add(id));
    if (now.length > 0) this.#open.set(id, now);
    else this.#open.delete(id);
    return [...before, ...now].map((s) => s.id);
  }

  /** The items of a condition that wait for an answer, by questions about it or about its requirements. */
  itemsWaiting(condition: ConditionId, requirements: readonly RequirementId[]): WaitingItems {
    if (this.#open.size === 0) return NOTHING;
    if (requirements.some((r) => (this.#bySubject.get(r)?.size ?? 0) > 0)) return 'all';
    const keys = new Set<string>();
    for (const id of this.#bySubject.get(condition) ?? []) {
      const items = this.#open.get(id)?.find((s) => s.kind === 'condition' && s.id === condition);
      if (items?.kind !== 'condition') continue;
      if (items.items.length === 0) return 'all';
      for (const key of items.items) keys.add(key);
    }
    return keys;
  }

  subjects(): ReadonlyMap<QuestionId, readonly QuestionSubject[]> {
    return this.#open;
  }
}
