import { artefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { summarySchema, type KindAndContent, type Summary } from '@caderno/contract';
import { selectRows, type Work } from '../database/index.ts';

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
export function summaryColumns(value: KindAndContent): SummaryColumns {
  switch (value.kind) {
    case 'requirement': {
      const { title, module, risk, priority, type } = value.content;
      return { title, module, risk, priority, owner: '', tags: [], facts: { type } };
    }
    case 'condition': {
      const { title, risk, model, polarity, requirements } = value.content;
      const facts = { model: model.kind, polarity, requirements: requirements.map((r) => r.id) };
      return { title, module: '', risk, priority: null, owner: '', tags: [], facts };
    }
    case 'case': {
      const { title, module, priority, owner, tags, steps, rows, estimate, covers } = value.content;
      const facts = { steps: steps.length, expected: steps.filter((s) => s.expected.trim() !== '').length, rows: rows.length, estimate, covers: covers.map((c) => c.id) };
      return { title, module, risk: null, priority, owner, tags: [...tags], facts };
    }
  }
}

interface SummaryRow extends SummaryColumns {
  readonly kind: ArtefactKind;
  readonly number: number;
  readonly parentNumber: number | null;
  readonly position: number;
  readonly state: string;
  readonly version: number;
  readonly meaningSince: number;
  readonly author: string;
  readonly at: Date;
}

const SELECT = `
  SELECT a.kind, a.number, parent.number AS "parentNumber", a.position, a.state, a.head AS version, a.meaning_since AS "meaningSince",
    a.title, a.module, a.risk, a.priority, a.owner, a.tags, a.facts, person.name AS author, a.updated_at AS at
  FROM artefact a LEFT JOIN artefact parent ON parent.id = a.parent_id JOIN person ON person.id = a.author_id`;

/** Summaries of the artefacts (alias `a`) an SQL condition holds for. */
export async function selectSummaries(work: Work, where: string, bind: readonly unknown[], order: string): Promise<Summary[]> {
  const rows = await selectRows<SummaryRow>(work, `${SELECT} WHERE ${where} ORDER BY ${order}`, bind);
  return rows.map(toSummary);
}

function toSummary(row: SummaryRow): Summary {
  const { kind, number, parentNumber, facts, at, ...rest } = row;
  const parent = parentNumber === null ? null : artefactId('requirement', parentNumber);
  return summarySchema.parse({ ...rest, ...facts, kind, id: artefactId(kind, number), parent, at: at.toISOString() });
}
