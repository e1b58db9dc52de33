import type { ArtefactKind } from '@caderno/core/artefacts';
import { z } from 'zod';

/** Written into every stored version; a kind whose content changes shape gets the next number and a migration. */
export const CONTENT_SCHEMA_VERSION: Record<ArtefactKind, number> = { requirement: 2, condition: 3, case: 5, question: 1, shared: 2, dataSet: 1 };

function withPatterns(model: unknown): unknown {
  const known = z.looseObject({ fields: z.array(z.looseObject({})).optional() }).parse(model);
  return known.fields === undefined ? known : { ...known, fields: known.fields.map((field) => ({ ...field, patterns: [] })) };
}

function withoutEvents(covers: unknown): unknown {
  return z.array(z.looseObject({})).parse(covers).map((cover) => ({ ...cover, start: null, events: [] }));
}

const withAttachments = (stored: Record<string, unknown>): Record<string, unknown> => ({
  ...stored,
  steps: z.array(z.looseObject({})).parse(stored.steps).map((step) => (step.kind === 'step' ? { ...step, attachments: [] } : step)),
});

const withRowNotes = (stored: Record<string, unknown>): Record<string, unknown> => ({
  ...stored,
  rows: z.array(z.looseObject({})).parse(stored.rows).map((row) => ({ ...row, description: '', mark: null, aside: false })),
  data: null,
  runs: { kind: 'all' },
});

const NO_CHARTER = { kind: 'procedure', execution: 'byHand', areas: '', ideas: '', dependsOn: [], origin: null };

/** What older schemas lack; step n leads from schema n to n + 1. Old versions stay readable for ever. */
export const CONTENT_MIGRATIONS: Record<ArtefactKind, readonly ((stored: Record<string, unknown>) => Record<string, unknown>)[]> = {
  requirement: [(stored) => ({ ...stored, rating: null, origin: null, attributes: [], relations: [], dismissals: [] })],
  condition: [(stored) => ({ ...stored, observations: [], defects: [] }), (stored) => ({ ...stored, depths: [], under: null, order: 0, model: withPatterns(stored.model) })],
  case: [(stored) => ({ ...stored, defects: [] }), (stored) => ({ ...stored, covers: withoutEvents(stored.covers) }), (stored) => ({ ...withAttachments(stored), ...NO_CHARTER }), withRowNotes],
  question: [],
  shared: [withAttachments],
  dataSet: [],
};
