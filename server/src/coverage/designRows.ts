import { ARTEFACT_STATES, artefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { RISKS, REQUIREMENT_TYPES, orderOutline } from '@caderno/core/basis';
import { MODEL_KINDS } from '@caderno/core/conditions';
import type { DesignCase, DesignCondition, DesignQuestion, DesignRequirement, DesignSettings } from '@caderno/core/coverage';
import { OwnKinds, phraseDetails, scenariosAsCases, type Wording } from '@caderno/core/scenarios';
import { phrasesDetailedSchema, type ConditionLine } from '@caderno/contract';
import { z } from 'zod';
import { contentOrBroken, outlinePlaces } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

const headRow = z.object({ number: z.number(), state: z.enum(ARTEFACT_STATES), version: z.number(), meaningSince: z.number(), content: z.unknown(), schema: z.number() });

/** Gathers which artefacts could not be read, for whoever wants to say so. */
export class BrokenOnes {
  readonly found: { readonly kind: ArtefactKind; readonly number: number }[] = [];

  read<T>(kind: ArtefactKind, number: number, content: T | null): T | null {
    if (content === null) this.found.push({ kind, number });
    return content;
  }
}

const HEADS = `
  SELECT a.number, a.state, a.head AS version, a.meaning_since AS "meaningSince", v.content, v.schema
  FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head`;

const requirementRow = z.object({ number: z.number(), state: z.enum(ARTEFACT_STATES), meaningSince: z.number(), title: z.string(), module: z.string(), risk: z.enum(RISKS), type: z.string().nullable() });

/** The requirements of a project in outline order, as coverage needs them. */
export async function designRequirements(work: UnitOfWork, projectId: string): Promise<DesignRequirement[]> {
  const rows = await selectRows(
    work,
    requirementRow,
    `SELECT number, state, meaning_since AS "meaningSince", title, module, risk, facts->>'type' AS type FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND deleted_at IS NULL`,
    [projectId],
  );
  const byId = new Map(rows.map(({ number, ...row }) => [artefactId('requirement', number), row]));
  return orderOutline(await outlinePlaces(work, projectId)).flatMap(({ place }) => {
    const row = byId.get(place.id);
    return row === undefined ? [] : [{ id: place.id, ...row, type: REQUIREMENT_TYPES.find((t) => t === row.type) ?? 'rule' }];
  });
}

/** The conditions (alias `a`) that an SQL condition holds for. */
export async function designConditions(work: UnitOfWork, where: string, bind: readonly unknown[], broken = new BrokenOnes()): Promise<DesignCondition[]> {
  const rows = await selectRows(work, headRow, `${HEADS} WHERE a.kind = 'condition' AND a.deleted_at IS NULL AND ${where} ORDER BY a.number`, bind);
  return rows.flatMap(({ number, content, schema, ...row }) => {
    const read = broken.read('condition', number, contentOrBroken('condition', schema, content));
    return read === null ? [] : [{ id: artefactId('condition', number), ...row, content: read }];
  });
}

/** Of a condition that cannot be read a list shows its name. */
const NO_HEAD = { polarity: 'both', requirements: [], depths: [], under: null, order: 0 } as const;

const conditionHeadRow = headRow.omit({ meaningSince: true }).extend({ technique: z.string().nullable(), title: z.string() });

/** What a list shows of the conditions (alias `a`) that an SQL condition holds for: the models are left where they are. */
export async function conditionHeads(work: UnitOfWork, where: string, bind: readonly unknown[]): Promise<ConditionLine[]> {
  const rows = await selectRows(
    work,
    conditionHeadRow,
    `SELECT a.number, a.state, a.head AS version, v.schema, v.content->'model'->>'kind' AS technique, CASE jsonb_typeof(v.content) WHEN 'object' THEN jsonb_set(v.content, '{model}', '{"kind": "plain"}') END AS content, a.title
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.kind = 'condition' AND a.deleted_at IS NULL AND ${where} ORDER BY a.number`,
    bind,
  );
  return rows.map(({ number, schema, content, title: known, technique, state, version }) => {
    const read = contentOrBroken('condition', schema, content);
    const { title, polarity, requirements, depths, under, order } = read ?? { ...NO_HEAD, title: known };
    const isKnown = MODEL_KINDS.find((kind) => kind === technique);
    return { id: artefactId('condition', number), state, version, technique: isKnown ?? 'plain', broken: read === null || isKnown === undefined, content: { title, polarity, requirements, depths, under, order } };
  });
}

/** The cases (alias `a`) that an SQL condition holds for. */
export async function designCases(work: UnitOfWork, where: string, bind: readonly unknown[], broken = new BrokenOnes()): Promise<DesignCase[]> {
  const rows = await selectRows(work, headRow, `${HEADS} WHERE a.kind = 'case' AND a.deleted_at IS NULL AND ${where} ORDER BY a.number`, bind);
  return rows.flatMap(({ number, state, version, content, schema }) => {
    const read = broken.read('case', number, contentOrBroken('case', schema, content));
    return read === null ? [] : [{ id: artefactId('case', number), state, version, content: read }];
  });
}

const detailingRow = z.object({ number: z.number(), state: z.enum(ARTEFACT_STATES), phrases: phrasesDetailedSchema });

/** How steps of a project's scenarios are understood. */
export async function designWording(work: UnitOfWork, projectId: string): Promise<Wording> {
  const own = new OwnKinds((await readSettings(work, projectId)).settings.valueKinds);
  const rows = await selectRows(work, detailingRow, `SELECT number, state, facts->'phrases' AS phrases FROM artefact WHERE project_id = $1 AND kind = 'shared' AND deleted_at IS NULL AND jsonb_array_length(COALESCE(facts->'phrases', '[]')) > 0`, [projectId]);
  return { own, details: phraseDetails(rows.map(({ number, ...row }) => ({ id: artefactId('shared', number), ...row })), own) };
}

/** The scenarios of features (alias `a`) that an SQL condition holds for, taken as cases. */
export async function designScenarios(work: UnitOfWork, wording: Wording, where: string, bind: readonly unknown[], broken = new BrokenOnes()): Promise<DesignCase[]> {
  const rows = await selectRows(work, headRow, `${HEADS} WHERE a.kind = 'feature' AND a.deleted_at IS NULL AND ${where} ORDER BY a.number`, bind);
  return rows.flatMap(({ number, state, version, content, schema }) => {
    const read = broken.read('feature', number, contentOrBroken('feature', schema, content));
    // Most scenarios cover nothing: they are not kept in memory.
    return read === null ? [] : scenariosAsCases(artefactId('feature', number), read, wording).flatMap((s) => (s.content.covers.length === 0 ? [] : [{ id: s.id, state, version, content: s.content }]));
  });
}

/** The questions (alias `a`) that an SQL condition holds for. */
export async function designQuestions(work: UnitOfWork, where: string, bind: readonly unknown[], broken = new BrokenOnes()): Promise<DesignQuestion[]> {
  const rows = await selectRows(work, headRow, `${HEADS} WHERE a.kind = 'question' AND a.deleted_at IS NULL AND ${where} ORDER BY a.number`, bind);
  return rows.flatMap(({ number, state, content, schema }) => {
    const read = broken.read('question', number, contentOrBroken('question', schema, content));
    return read === null ? [] : [{ id: artefactId('question', number), state, content: read }];
  });
}

/** The settings of a project that coverage depends on. */
export async function designSettings(work: UnitOfWork, projectId: string): Promise<DesignSettings> {
  const { riskScale, mostItems, constants } = (await readSettings(work, projectId)).settings;
  return { riskWeights: riskScale.weights, mostItems, constants };
}
