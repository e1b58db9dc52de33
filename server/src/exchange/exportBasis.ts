import { ARTEFACT_STATES, artefactId } from '@caderno/core/artefacts';
import { FilesBeside } from '@caderno/core/attachments';
import { EMPTY_REQUIREMENT, orderOutline, withoutHidden, type RequirementContent } from '@caderno/core/basis';
import { NO_ITEMS, type CoverageReport } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { LONGEST_XLSX_CELL, exportSections, exportTable, writeCsv, writeMarkdown, writeReqif, type ExportedRequirement, type ReqifObject, type ReqifSource } from '@caderno/core/exchange';
import type { ExportFormat } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { importBaseSchema, contentOrBroken, outlinePlaces } from '../artefacts/index.ts';
import { inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { writeWorkbook } from '../files/index.ts';
import { listSources } from './importSource.ts';
import { ownFieldsIn, projectKey } from './importing.ts';
import type { WithFiles } from './withFiles.ts';

const TYPES: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  md: 'text/markdown; charset=utf-8',
  reqif: 'application/xml',
};

/** The basis as a file; withdrawn requirements are left out. With a report it says what is covered. */
export async function exportBasis(db: Sequelize, projectId: string, { format, report, files, at }: BasisOrder): Promise<WithFiles> {
  const parts = await inTransaction(db, async (work) => {
    const requirements = await exportedRequirements(work, projectId, report);
    return { project: await projectKey(work, projectId), fields: await ownFieldsIn(work, projectId), requirements, reqif: format === 'reqif' ? await reqifParts(work, projectId, requirements) : null };
  });
  const beside = files && format !== 'reqif' ? new FilesBeside() : null;
  const bytes = await bytesOf(format, parts, report !== null, at, beside);
  return { name: `${parts.project}-basis.${format}`, type: TYPES[format], bytes, beside: beside?.all ?? [] };
}

/** How the basis is to be written. */
interface BasisOrder {
  readonly format: ExportFormat;
  /** Null: without conditions and figures. */
  readonly report: CoverageReport | null;
  /** Whether what is attached comes along; ReqIF has no place for it. */
  readonly files: boolean;
  readonly at: Date;
}

interface ExportParts {
  readonly project: string;
  readonly fields: readonly OwnField[];
  readonly requirements: readonly ExportedRequirement[];
  /** For ReqIF only. */
  readonly reqif: Awaited<ReturnType<typeof reqifParts>> | null;
}

async function bytesOf(format: ExportFormat, { project, fields, requirements, reqif }: ExportParts, figures: boolean, at: Date, beside: FilesBeside | null): Promise<Uint8Array> {
  switch (format) {
    case 'csv':
      return Buffer.from(writeCsv(exportTable(project, requirements, fields, figures, beside)));
    case 'md':
      return Buffer.from(writeMarkdown(project, exportSections(project, requirements, beside)));
    case 'xlsx': {
      const table = exportTable(project, requirements, fields, figures, beside);
      const long = requirements[table.findIndex((row) => row.some((cell) => cell.length >= LONGEST_XLSX_CELL)) - 1];
      if (long !== undefined) throw new DomainError({ code: 'export_cell_too_long', id: long.id, limit: LONGEST_XLSX_CELL });
      return writeWorkbook([{ name: 'Basis', rows: table }]);
    }
    case 'reqif':
      return Buffer.from(writeReqif({ project, title: project, at: at.toISOString(), requirements, fields, ...(reqif ?? { sources: new Map(), objects: new Map() }) }));
  }
}

const exportedRow = z.object({ number: z.number(), title: z.string(), version: z.number(), state: z.enum(ARTEFACT_STATES), schema: z.number(), content: z.unknown() });

async function exportedRequirements(work: UnitOfWork, projectId: string, report: CoverageReport | null): Promise<ExportedRequirement[]> {
  const rows = await selectRows(
    work,
    exportedRow,
    `SELECT a.number, a.title, a.head AS version, a.state, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND a.state <> 'withdrawn'`,
    [projectId],
  );
  const byId = new Map(rows.map((row) => [artefactId('requirement', row.number), row]));
  const all = await outlinePlaces(work, projectId);
  const places = withoutHidden(all, new Set(all.flatMap((p) => (byId.has(p.id) ? [] : [p.id]))));
  const designs = await designsOf(work, projectId, report);
  return orderOutline(places).flatMap(({ place, depth }): ExportedRequirement[] => {
    const row = byId.get(place.id);
    if (row === undefined) return [];
    const content: RequirementContent = contentOrBroken('requirement', row.schema, row.content) ?? unreadable(row.title);
    return [{ id: place.id, version: row.version, parent: place.parent, depth, state: row.state, content, design: report === null ? null : (designs.get(place.id) ?? { conditions: [], counts: NO_ITEMS }) }];
  });
}

/** Stands in an export for a requirement that cannot be read, so that nobody takes the file for the whole. */
function unreadable(title: string): RequirementContent {
  return { ...EMPTY_REQUIREMENT, title, text: 'What is stored of this requirement cannot be read. It is left out here; open it in Caderno to restore an earlier version.' };
}

const titleRow = z.object({ number: z.number(), title: z.string() });

async function designsOf(work: UnitOfWork, projectId: string, report: CoverageReport | null): Promise<Map<string, NonNullable<ExportedRequirement['design']>>> {
  if (report === null) return new Map();
  const titles = await selectRows(work, titleRow, `SELECT number, title FROM artefact WHERE project_id = $1 AND kind = 'condition'`, [projectId]);
  const byNumber = new Map(titles.map((t) => [artefactId('condition', t.number), t.title]));
  return new Map(report.requirements.map((r) => [r.id, { counts: r.counts, conditions: r.conditions.map((c) => ({ id: c.id, title: byNumber.get(c.id) ?? '' })) }]));
}

const objectSchema = z.object({ type: z.string(), hierarchyId: z.string(), specification: z.string() });

/** What was kept of an imported object; what cannot be read of it is written as though it had been made here. */
function objectOf(text: string): ReqifObject | null {
  try {
    return objectSchema.nullable().catch(null).parse(JSON.parse(text));
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}

const importedRow = z.object({ number: z.number(), base: importBaseSchema });

async function reqifParts(work: UnitOfWork, projectId: string, requirements: readonly ExportedRequirement[]): Promise<{ sources: Map<string, ReqifSource>; objects: Map<string, ReqifObject> }> {
  const sources = new Map((await listSources(work, projectId)).flatMap((s) => (s.types === null ? [] : [[s.name, { types: s.types, mapping: s.mapping }] as const])));
  const bases = await selectRows(work, importedRow, 'SELECT a.number, i.base FROM imported i JOIN artefact a ON a.id = i.artefact_id WHERE a.project_id = $1', [projectId]);
  const facts = new Map(bases.map(({ number, base }) => [artefactId('requirement', number), base.facts]));
  const objects = new Map<string, ReqifObject>();
  for (const { id, content } of requirements) {
    const text = facts.get(id) ?? '';
    if (text !== '' && sources.has(content.origin?.source ?? '')) {
      const object = objectOf(text);
      if (object !== null) objects.set(id, object);
    }
  }
  return { sources, objects };
}
