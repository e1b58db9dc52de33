import { artefactId, type ArtefactKind, type ArtefactState, type Priority } from '@caderno/core/artefacts';
import { QUESTION_STATUSES, REQUIREMENT_TYPES, effectiveRisk, type Risk, type RiskScale } from '@caderno/core/basis';
import { CASE_KINDS, EXECUTIONS, expects } from '@caderno/core/cases';
import { MODEL_KINDS, POLARITIES } from '@caderno/core/conditions';
import { conditionIdSchema, dataSetIdSchema, requirementIdSchema, type KindAndContent, type Summary } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

/** The columns lists sort and filter by, taken from a content. */
export interface SummaryColumns {
  readonly title: string;
  readonly module: string;
  readonly risk: string | null;
  readonly priority: string | null;
  readonly owner: string;
  readonly tags: string[];
  readonly facts: object;
}

/** Derived from content in the transaction that stores it. */
export function summaryColumns(value: KindAndContent, scale: RiskScale): SummaryColumns {
  switch (value.kind) {
    case 'requirement': {
      const { title, module, priority, type, origin } = value.content;
      return { title, module, risk: effectiveRisk(scale, value.content), priority, owner: '', tags: [], facts: { type, origin: origin?.id ?? '' } };
    }
    case 'question': {
      const { title, status, asked, about, answeredAt } = value.content;
      return { title, module: '', risk: null, priority: null, owner: asked, tags: [], facts: { status, about: about.map((s) => s.id), answeredAt } };
    }
    case 'condition': {
      const { title, risk, model, polarity, requirements } = value.content;
      const facts = { model: model.kind, polarity, requirements: requirements.map((r) => r.id) };
      return { title, module: '', risk, priority: null, owner: '', tags: [], facts };
    }
    case 'shared': {
      const { title, module, tags, steps, parameters } = value.content;
      return { title, module, risk: null, priority: null, owner: '', tags: [...tags], facts: { steps: steps.length, parameters: parameters.map((p) => p.name) } };
    }
    case 'dataSet': {
      const { title, module, tags, rows, parameters, serves } = value.content;
      return { title, module, risk: null, priority: null, owner: '', tags: [...tags], facts: { rows: rows.length, parameters: parameters.map((p) => p.name), serves: serves.map((s) => s.id) } };
    }
    case 'case': {
      const { title, kind, execution, module, priority, owner, tags, steps, rows, data, estimate, covers } = value.content;
      const facts = { kind, execution, steps: steps.length, expected: steps.filter(expects).length, rows: rows.length, dataSet: data?.set ?? null, estimate, covers: covers.map((c) => c.id) };
      return { title, module, risk: null, priority, owner, tags: [...tags], facts };
    }
  }
}

interface SummaryRow {
  readonly kind: ArtefactKind;
  readonly number: number;
  readonly parentNumber: number | null;
  readonly position: number;
  readonly state: ArtefactState;
  readonly version: number;
  readonly meaningSince: number;
  readonly title: string;
  readonly module: string;
  readonly risk: Risk | null;
  readonly priority: Priority | null;
  readonly owner: string;
  readonly tags: string[];
  readonly facts: unknown;
  readonly author: string;
  readonly at: string;
  readonly broken: boolean;
}

// Dates leave the database as text: making a Date of each and a text of it again is dear in a list of thousands.
const SELECT = `
  SELECT a.kind, a.number, parent.number AS "parentNumber", a.position, a.state, a.head AS version, a.meaning_since AS "meaningSince",
    a.title, a.module, a.risk, a.priority, a.owner, a.tags, a.facts, person.name AS author,
    to_char(a.updated_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at, a.broken
  FROM artefact a LEFT JOIN artefact parent ON parent.id = a.parent_id JOIN person ON person.id = a.author_id`;

/** Summaries of the artefacts (alias `a`) an SQL condition holds for. */
export async function selectSummaries(work: UnitOfWork, where: string, bind: readonly unknown[], order: string): Promise<Summary[]> {
  const rows = await selectRows<SummaryRow>(work, `${SELECT} WHERE ${where} ORDER BY ${order}`, bind);
  return rows.map(toSummary);
}

const requirementFacts = z.object({ type: z.enum(REQUIREMENT_TYPES), origin: z.string().default('') });
const conditionFacts = z.object({ model: z.enum(MODEL_KINDS), polarity: z.enum(POLARITIES), requirements: z.array(requirementIdSchema) });
const questionFacts = z.object({ status: z.enum(QUESTION_STATUSES), about: z.array(z.union([requirementIdSchema, conditionIdSchema])), answeredAt: z.string() });
const caseFacts = z.object({ kind: z.enum(CASE_KINDS), execution: z.enum(EXECUTIONS), steps: z.int(), expected: z.int(), rows: z.int(), dataSet: dataSetIdSchema.nullable(), estimate: z.number().nullable(), covers: z.array(conditionIdSchema) });

const dataSetFacts = z.object({ rows: z.int(), parameters: z.array(z.string()), serves: z.array(conditionIdSchema) });
const sharedFacts = z.object({ steps: z.int(), parameters: z.array(z.string()) });

/** Facts, or, where they cannot be read, none: a list then shows the name, and that it is broken. */
function factsOf<T>(schema: z.ZodType<T, unknown>, facts: unknown, none: NoInfer<T>): { readonly facts: T; readonly broken: boolean } {
  const read = schema.safeParse(facts);
  return read.success ? { facts: read.data, broken: false } : { facts: none, broken: true };
}

/** The columns were written from checked content; what is left open by them, the facts, is checked here. */
function toSummary(row: SummaryRow): Summary {
  const { number, title, state, version, meaningSince, module, author, at } = row;
  const head = { title, state, version, meaningSince, module, author, at };
  switch (row.kind) {
    case 'requirement': {
      const { facts, broken } = factsOf(requirementFacts, row.facts, { type: 'rule', origin: '' });
      const parent = row.parentNumber === null ? null : artefactId('requirement', row.parentNumber);
      const { position, risk, priority } = row;
      return { kind: 'requirement', id: artefactId('requirement', number), ...head, broken: broken || row.broken, parent, position, type: facts.type, sourceId: facts.origin, risk: risk ?? 'medium', priority: priority ?? 'medium' };
    }
    case 'question': {
      const { facts, broken } = factsOf(questionFacts, row.facts, { status: 'open', about: [], answeredAt: '' });
      return { kind: 'question', id: artefactId('question', number), ...head, broken: broken || row.broken, asked: row.owner, ...facts };
    }
    case 'condition': {
      const { facts, broken } = factsOf(conditionFacts, row.facts, { model: 'plain', polarity: 'both', requirements: [] });
      return { kind: 'condition', id: artefactId('condition', number), ...head, broken: broken || row.broken, risk: row.risk, ...facts };
    }
    case 'shared': {
      const { facts, broken } = factsOf(sharedFacts, row.facts, { steps: 0, parameters: [] });
      return { kind: 'shared', id: artefactId('shared', number), ...head, broken: broken || row.broken, tags: row.tags, ...facts };
    }
    case 'dataSet': {
      const { facts, broken } = factsOf(dataSetFacts, row.facts, { rows: 0, parameters: [], serves: [] });
      return { kind: 'dataSet', id: artefactId('dataSet', number), ...head, broken: broken || row.broken, tags: row.tags, ...facts };
    }
    case 'case': {
      const { facts, broken } = factsOf(caseFacts, row.facts, { kind: 'procedure', execution: 'byHand', steps: 0, expected: 0, rows: 0, dataSet: null, estimate: null, covers: [] });
      const { kind: caseKind, ...counts } = facts;
      const { priority, tags, owner } = row;
      return { kind: 'case', id: artefactId('case', number), ...head, broken: broken || row.broken, priority: priority ?? 'medium', tags, owner, caseKind, ...counts };
    }
  }
}
