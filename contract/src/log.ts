import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { TECHNIQUES } from '@caderno/core/conditions';
import { STANDINGS, type CoverageRow } from '@caderno/core/coverage';
import { z } from 'zod';
import { deliveredSchema } from './inbox.ts';
import { remarkedSchema } from './remarks.ts';
import { reviewedSchema } from './reviews.ts';
import { KIND_SCHEMA, type Summary } from './kinds/index.ts';
import { artefactIdSchema, conditionIdSchema, coveringIdSchema, questionIdSchema } from './ids.ts';
import { pack, packedSchema, unpackAs, type Packed } from './packed.ts';

/** Heads on one page of the first filling. */
export const HEADS_PAGE = 5_000;

/** Beyond this many artefacts changed since, reading all heads anew is shorter than what changed. */
export const MOST_CHANGED = 2_000;

const heads = z.array(packedSchema);

/** All heads of a project, a page at a time. `revision`: at least all changes up to it are in this page. */
export const headsPageSchema = z.object({ revision: z.int(), heads, next: z.string().nullable(), suspectLinks: z.int() });

/** An artefact that a change touched, and what it links to now: whoever shows something around one of these reads it again. */
const touchedSchema = z.object({ id: artefactIdSchema, to: z.array(artefactIdSchema) });
/** See {@link touchedSchema}. */
export type Touched = z.infer<typeof touchedSchema>;

/** What changed in a project from one revision to another. */
export const changesSinceSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('changes'),
    since: z.int(),
    revision: z.int(),
    heads,
    gone: z.array(artefactIdSchema),
    touched: z.array(touchedSchema),
    settings: z.boolean(),
    suspectLinks: z.int(),
  }),
  /** Too much changed, or the revision is none of this project's past: all is to be read again. */
  z.object({ kind: z.literal('tooOld'), revision: z.int() }),
]);
/** See {@link changesSinceSchema}. */
export type ChangesSince = z.infer<typeof changesSinceSchema>;

/** Coverage rows that were written since an edition (null: all); `edition` counts every writing, `revision` is the project's that they are of. */
/** What coverage says something of: an artefact, or a scenario. */
const coverageRowIdSchema = z.union([artefactIdSchema, coveringIdSchema]);

export const coverageSinceSchema = z.object({ since: z.int().nullable(), edition: z.int(), revision: z.int(), rows: z.array(packedSchema), gone: z.array(coverageRowIdSchema) });
/** See {@link coverageSinceSchema}. */
export type CoverageSince = z.infer<typeof coverageSinceSchema>;

/** In place of what would be too much to push: the page asks for what changed since its own revision. */
const askNewsSchema = z.object({ kind: z.literal('ask') });
/** See {@link askNewsSchema}. */
export type AskNews = z.infer<typeof askNewsSchema>;

/**
 * What the events of a project's stream carry, by their names; the id of `changes` is the revision. `open` names the
 * revision and the edition that what follows goes on from.
 */
export const PROJECT_EVENTS = {
  open: z.object({ revision: z.int(), edition: z.int() }),
  changes: z.union([changesSinceSchema, askNewsSchema]),
  coverage: z.union([coverageSinceSchema, askNewsSchema]),
  remarked: remarkedSchema,
  reviewed: reviewedSchema,
  /** A baseline was taken. */
  frozen: z.object({}),
  delivered: deliveredSchema,
};

/** Heads by kind, so that all of one table have the same fields. */
export function packHeads(summaries: readonly Summary[]): Packed[] {
  return ARTEFACT_KINDS.flatMap((kind) => {
    const some = summaries.filter((s) => s.kind === kind);
    return some.length === 0 ? [] : [pack(some)];
  });
}

/** @throws ZodError when what came is none of our heads. */
export function unpackHeads(tables: readonly Packed[]): Summary[] {
  return tables.flatMap((table) => unpackAs<Summary>(KIND_SCHEMA[kindOf(table, ARTEFACT_KINDS)].summary, table));
}

/** All of one table are of one kind. */
function kindOf<K extends string>({ columns }: Packed, known: readonly K[]): K {
  const column = columns.kind;
  return z.enum(known).parse(column !== undefined && 'same' in column ? column.same : undefined);
}

const count = z.int().min(0);
/** Standings and techniques as their places in the lists of the core, a digit each; techniques that are all alike as one digit. */
const digits = z.string().regex(/^\d*$/);
const WIRE_SCHEMA = {
  condition: z.object({ kind: z.literal('condition'), id: conditionIdSchema, weight: z.number(), standings: digits, techniques: digits }),
  case: z.object({ kind: z.literal('case'), id: coveringIdSchema, shows: z.boolean(), counts: z.object({ instances: count, steps: count }).nullable() }),
  question: z.object({ kind: z.literal('question'), id: questionIdSchema, heldUp: count }),
} as const;
/** A coverage row on the wire. */
export const wireRowSchema = z.discriminatedUnion('kind', [WIRE_SCHEMA.condition, WIRE_SCHEMA.case, WIRE_SCHEMA.question]);
/** See {@link wireRowSchema}. */
export type WireRow = z.infer<typeof wireRowSchema>;

/** A coverage row as it is stored and sent. */
export function toWire(row: CoverageRow): WireRow {
  if (row.kind !== 'condition') return row;
  const techniques = digitsOf(row.techniques, TECHNIQUES);
  return { kind: row.kind, id: row.id, weight: row.weight, standings: digitsOf(row.standings, STANDINGS), techniques: new Set(techniques).size === 1 ? techniques.slice(0, 1) : techniques };
}

/** @throws ZodError when it is none. */
export function rowFromWire(value: unknown): CoverageRow {
  return toRow(wireRowSchema.parse(value));
}

function toRow(row: WireRow): CoverageRow {
  if (row.kind !== 'condition') return row;
  const standings = ofDigits(row.standings, STANDINGS);
  const techniques = row.techniques.length === 1 ? row.techniques.repeat(standings.length) : row.techniques;
  return { kind: row.kind, id: row.id, weight: row.weight, standings, techniques: ofDigits(techniques, TECHNIQUES) };
}

/** Rows by kind, so that all of one table have the same fields. */
export function packRows(rows: readonly WireRow[]): Packed[] {
  return (['condition', 'case', 'question'] as const).flatMap((kind) => {
    const some = rows.filter((r) => r.kind === kind);
    return some.length === 0 ? [] : [pack(some)];
  });
}

/** @throws ZodError when what came is none of our rows. */
export function unpackRows(tables: readonly Packed[]): CoverageRow[] {
  return tables.flatMap((table) => unpackAs<WireRow>(WIRE_SCHEMA[kindOf(table, ['condition', 'case', 'question'])], table).map(toRow));
}

function digitsOf<T extends string>(values: readonly T[], list: readonly T[]): string {
  return values.map((value) => list.indexOf(value)).join('');
}

function ofDigits<T extends string>(digitText: string, list: readonly T[]): T[] {
  return [...digitText].map((digit) => {
    const value = list[Number(digit)];
    if (value === undefined) throw new z.ZodError([{ code: 'custom', path: ['digits'], message: `has no ${digit} among ${list.length}`, input: digitText }]);
    return value;
  });
}
