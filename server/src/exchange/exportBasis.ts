import { artefactId, type ArtefactState } from '@caderno/core/artefacts';
import { orderOutline, type RequirementContent } from '@caderno/core/basis';
import { NO_ITEMS, type CoverageReport } from '@caderno/core/coverage';
import { LONGEST_XLSX_CELL, exportSections, exportTable, writeCsv, writeMarkdown, writeReqif, writeXlsx, type ExportedRequirement, type ImportBase, type ReqifObject, type ReqifSource } from '@caderno/core/exchange';
import type { ExportFormat, FileAnswer } from '@caderno/contract';
import { z } from 'zod';
import { contentFromStore, outlinePlaces } from '../artefacts/index.ts';
import { selectRows, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { listSources } from './importFile.ts';
import { projectKey } from './importing.ts';

const TYPES: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  md: 'text/markdown; charset=utf-8',
  reqif: 'application/xml',
};

/** The basis as a file; withdrawn requirements are left out. With a report it says what is covered. */
export async function exportBasis(work: Work, projectId: string, format: ExportFormat, report: CoverageReport | null, at: Date): Promise<FileAnswer> {
  const project = await projectKey(work, projectId);
  const requirements = await exportedRequirements(work, projectId, report);
  return { name: `${project}-basis.${format}`, type: TYPES[format], bytes: await bytesOf(work, projectId, project, format, requirements, report !== null, at) };
}

async function bytesOf(work: Work, projectId: string, project: string, format: ExportFormat, requirements: readonly ExportedRequirement[], figures: boolean, at: Date): Promise<Uint8Array> {
  switch (format) {
    case 'csv':
      return Buffer.from(writeCsv(exportTable(project, requirements, figures)));
    case 'md':
      return Buffer.from(writeMarkdown(project, exportSections(requirements)));
    case 'xlsx': {
      const table = exportTable(project, requirements, figures);
      const long = requirements[table.findIndex((row) => row.some((cell) => cell.length >= LONGEST_XLSX_CELL)) - 1];
      if (long !== undefined) throw new Refused({ code: 'export_cell_too_long', id: long.id, limit: LONGEST_XLSX_CELL });
      return writeXlsx('Basis', table);
    }
    case 'reqif':
      return Buffer.from(writeReqif({ project, title: project, at: at.toISOString(), requirements, ...(await reqifParts(work, projectId, requirements)) }));
  }
}

async function exportedRequirements(work: Work, projectId: string, report: CoverageReport | null): Promise<ExportedRequirement[]> {
  const rows = await selectRows<{ number: number; version: number; state: ArtefactState; schema: number; content: unknown }>(
    work,
    `SELECT a.number, a.head AS version, a.state, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND a.state <> 'withdrawn'`,
    [projectId],
  );
  const byId = new Map(rows.map((row) => [artefactId('requirement', row.number), row]));
  const places = (await outlinePlaces(work, projectId)).filter((p) => byId.has(p.id));
  const designs = await designsOf(work, projectId, report);
  return orderOutline(places).flatMap(({ place, depth }): ExportedRequirement[] => {
    const row = byId.get(place.id);
    if (row === undefined) return [];
    const content: RequirementContent = contentFromStore('requirement', row.schema, row.content);
    const parent = place.parent !== null && byId.has(place.parent) ? place.parent : null;
    return [{ id: place.id, version: row.version, parent, depth, state: row.state, content, design: report === null ? null : (designs.get(place.id) ?? { conditions: [], counts: NO_ITEMS }) }];
  });
}

async function designsOf(work: Work, projectId: string, report: CoverageReport | null): Promise<Map<string, NonNullable<ExportedRequirement['design']>>> {
  if (report === null) return new Map();
  const titles = await selectRows<{ number: number; title: string }>(work, `SELECT number, title FROM artefact WHERE project_id = $1 AND kind = 'condition'`, [projectId]);
  const byNumber = new Map(titles.map((t) => [artefactId('condition', t.number), t.title]));
  return new Map(report.requirements.map((r) => [r.id, { counts: r.counts, conditions: r.conditions.map((c) => ({ id: c.id, title: byNumber.get(c.id) ?? '' })) }]));
}

const objectSchema = z.object({ type: z.string(), hierarchyId: z.string(), specification: z.string() });

async function reqifParts(work: Work, projectId: string, requirements: readonly ExportedRequirement[]): Promise<{ sources: Map<string, ReqifSource>; objects: Map<string, ReqifObject> }> {
  const sources = new Map((await listSources(work, projectId)).flatMap((s) => (s.types === null ? [] : [[s.name, { types: s.types, mapping: s.mapping }] as const])));
  const bases = await selectRows<{ number: number; base: ImportBase }>(work, 'SELECT a.number, i.base FROM imported i JOIN artefact a ON a.id = i.artefact_id WHERE a.project_id = $1', [projectId]);
  const facts = new Map(bases.map(({ number, base }) => [artefactId('requirement', number), base.facts]));
  const objects = new Map<string, ReqifObject>();
  for (const { id, content } of requirements) {
    const text = facts.get(id) ?? '';
    if (text !== '' && sources.has(content.origin?.source ?? '')) objects.set(id, objectSchema.parse(JSON.parse(text)));
  }
  return { sources, objects };
}
