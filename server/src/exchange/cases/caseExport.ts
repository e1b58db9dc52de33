import { setImmediate as turn } from 'node:timers/promises';
import { ARTEFACT_STATES, artefactId, parseArtefactId, type ArtefactId, type CaseId, type RequirementId } from '@caderno/core/artefacts';
import { FilesBeside } from '@caderno/core/attachments';
import { attachedOf, caseMarkdown, caseTable, instanceTable, type CaseTableOptions, type ExportedCase } from '@caderno/core/caseFiles';
import { caseRow, countStandings, instancesOf, type CoverageRow } from '@caderno/core/coverage';
import { LONGEST_XLSX_CELL, csvPieces } from '@caderno/core/exchange';
import { keysUsed, visibleConstants } from '@caderno/core/shared';
import { KIND_SCHEMA, rowFromWire, type ExportCases, type CaseFormat } from '@caderno/contract';
import { z } from 'zod';
import { contentOrBroken, readLibrary } from '../../artefacts/index.ts';
import { numberRow, selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { writeWorkbook } from '../../files/index.ts';
import { readSettings } from '../../projects/index.ts';
import { projectKey } from '../importing.ts';
import type { WithFiles } from '../withFiles.ts';

const TYPES: Record<CaseFormat, string> = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  csv: 'text/csv; charset=utf-8',
  md: 'text/markdown; charset=utf-8',
  json: 'application/json',
  schema: 'application/schema+json',
};

/** Cases as a file. What cannot be read of them is refused by name: nobody is to take a file for the whole that is not. */
export async function exportCases(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[], order: Omit<ExportCases, 'of'>): Promise<WithFiles> {
  const project = await projectKey(work, projectId);
  const { format } = order;
  if (format === 'schema') return { name: `${project}-cases.schema.json`, type: TYPES.schema, bytes: Buffer.from(JSON.stringify(casesJsonSchema(), null, 2)), beside: [] };
  const beside = order.files ? new FilesBeside() : null;
  const pages = readCases(work, projectId, ids, order.figures);
  const bytes = await bytesOf(work, projectId, pages, { ...order, format, project, beside });
  return { name: `${project}-cases.${format}`, type: TYPES[format], bytes, beside: beside?.all ?? [] };
}

interface Writing extends Omit<ExportCases, 'of' | 'format'> {
  readonly format: Exclude<CaseFormat, 'schema'>;
  readonly project: string;
  readonly beside: FilesBeside | null;
}

/** Cases in their order, some at a time. */
type Pages = AsyncIterable<readonly ExportedCase[]>;

async function bytesOf(work: UnitOfWork, projectId: string, pages: Pages, { format, layout, figures, sheets, project, beside }: Writing): Promise<Uint8Array> {
  if (format === 'json') return joined(casesJson(project, pages, beside));
  const { settings } = await readSettings(work, projectId);
  const options: CaseTableOptions = { project, layout: layout === 'instanceRows' ? 'caseRows' : layout, fields: settings.fields, titleOf: await titles(work, projectId), figures, beside };
  if (format === 'md') return joined(markdownPieces(pages, options));
  const tables = layout === 'instanceRows' ? [{ name: 'Instances', rows: await instances(work, projectId, pages) }] : await tablesOf(pages, options, format === 'xlsx' && sheets);
  if (format === 'csv') return joined(csvPieces(tables.flatMap((table) => table.rows)));
  for (const { rows } of tables) refuseLongCells(rows);
  return writeWorkbook(tables);
}

/** As bytes at once: texts of a whole file and their bytes together would be twice its room. */
async function joined(pieces: Iterable<string> | AsyncIterable<string>): Promise<Uint8Array> {
  const bytes: Buffer[] = [];
  for await (const piece of pieces) bytes.push(Buffer.from(piece));
  return Buffer.concat(bytes);
}

async function* markdownPieces(pages: Pages, options: CaseTableOptions): AsyncGenerator<string> {
  let isFirst = true;
  for await (const some of pages) {
    const [title = '', ...sections] = caseMarkdown(some, options);
    yield (isFirst ? title : '') + sections.join('');
    isFirst = false;
  }
}

interface Table {
  readonly name: string;
  readonly rows: string[][];
}

/** One table, or one for each module in the order of their names. */
async function tablesOf(pages: Pages, options: CaseTableOptions, byModule: boolean): Promise<Table[]> {
  const tables = new Map<string, string[][]>();
  for await (const some of pages) {
    const parts = byModule ? byModuleOf(some) : new Map([['Cases', some]]);
    for (const [name, cases] of parts) {
      const [names = [], ...rows] = caseTable(cases, options);
      const there = tables.get(name);
      if (there === undefined) tables.set(name, [names, ...rows]);
      else for (const row of rows) there.push(row);
    }
  }
  return [...tables].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true })).map(([name, rows]) => ({ name: name || 'No module', rows }));
}

function byModuleOf(cases: readonly ExportedCase[]): Map<string, ExportedCase[]> {
  const modules = new Map<string, ExportedCase[]>();
  for (const one of cases) {
    const there = modules.get(one.content.module);
    if (there === undefined) modules.set(one.content.module, [one]);
    else there.push(one);
  }
  return modules;
}

async function instances(work: UnitOfWork, projectId: string, pages: Pages): Promise<string[][]> {
  const cases: ExportedCase[] = [];
  for await (const some of pages) cases.push(...some);
  const library = await readLibrary(work, projectId, cases.flatMap((c) => keysUsed(c.content)));
  const made = instanceTable(cases, library, visibleConstants((await readSettings(work, projectId)).settings.constants));
  if ('tooMany' in made) throw new DomainError({ code: 'too_many_instances', id: made.tooMany });
  return made.rows;
}

function refuseLongCells(rows: readonly (readonly string[])[]): void {
  let id = '';
  for (const row of rows) {
    if (row[0] !== '') id = row[0] ?? '';
    if (row.some((cell) => cell.length >= LONGEST_XLSX_CELL)) throw new DomainError({ code: 'export_cell_too_long', id: id as CaseId, limit: LONGEST_XLSX_CELL });
  }
}

const exportedRow = z.object({ number: z.number(), version: z.number(), state: z.enum(ARTEFACT_STATES), schema: z.number(), content: z.unknown() });

/** Cases whose contents are in memory at a time. */
const AT_A_TIME = 500;

/** The cases in the order asked for, a page at a time; of no cases one empty page. */
async function* readCases(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[], figures: boolean): AsyncGenerator<ExportedCase[]> {
  const numbers = ids.flatMap((id) => (parseArtefactId(id)?.kind === 'case' ? [Number(id.slice(2))] : []));
  const designOf = figures ? await designs(work, projectId) : () => null;
  const pageAt = (from: number): ReturnType<typeof readPage> => readPage(work, projectId, numbers.slice(from, from + AT_A_TIME));
  let next = pageAt(0);
  for (let from = 0; from === 0 || from < numbers.length; from += AT_A_TIME) {
    const rows = await next;
    // The database is at the next ones while these are written; the question has to go out first.
    if (from + AT_A_TIME < numbers.length) next = pageAt(from + AT_A_TIME);
    // What goes wrong with them is told where they are waited for; until then nobody else is to take it for unheard.
    next.catch(() => undefined);
    await turn();
    yield rows.map(({ number, version, state, schema, content }): ExportedCase => {
      const id = artefactId('case', number);
      const read = contentOrBroken('case', schema, content);
      if (read === null) throw new DomainError({ code: 'artefact_broken', id, version });
      return { id, version, state, content: read, design: designOf(id, read) };
    });
  }
}

function readPage(work: UnitOfWork, projectId: string, numbers: readonly number[]): Promise<z.infer<typeof exportedRow>[]> {
  return selectRows(
    work,
    exportedRow,
    `SELECT a.number, a.head AS version, a.state, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'case' AND a.deleted_at IS NULL AND a.number = ANY($2) ORDER BY array_position($2, a.number)`,
    [projectId, numbers],
  );
}

const coverageRow = z.object({ row: z.unknown() });
const conditionRow = z.object({ number: z.number(), requirements: z.array(z.string()) });

/** What coverage says of the conditions of a case, and how often it is executed. */
async function designs(work: UnitOfWork, projectId: string): Promise<(id: CaseId, content: ExportedCase['content']) => NonNullable<ExportedCase['design']>> {
  const stored = await selectRows(work, coverageRow, 'SELECT row FROM coverage_row WHERE project_id = $1 AND row IS NOT NULL', [projectId]);
  const rows = new Map<string, CoverageRow>(stored.map(({ row }) => [rowFromWire(row).id, rowFromWire(row)]));
  const conditions = await selectRows(work, conditionRow, `SELECT number, coalesce(facts->'requirements', '[]') AS requirements FROM artefact WHERE project_id = $1 AND kind = 'condition' AND deleted_at IS NULL`, [projectId]);
  const derived = new Map(conditions.map((c) => [artefactId('condition', c.number), c.requirements as RequirementId[]]));
  return (id, content) => {
    const counts = countStandings(
      content.covers.flatMap((cover) => {
        const row = rows.get(cover.id);
        return row?.kind === 'condition' ? row.standings : [];
      }),
    );
    return { requirements: [...new Set(content.covers.flatMap((c) => derived.get(c.id) ?? []))], counts, instances: String(instancesOf({ rows: content.rows.length }, caseRow(rows, id))) };
  };
}

const titleRow = z.object({ kind: z.enum(['shared', 'case']), ...numberRow.shape, title: z.string() });

async function titles(work: UnitOfWork, projectId: string): Promise<(id: ArtefactId) => string> {
  const rows = await selectRows(work, titleRow, `SELECT kind, number, title FROM artefact WHERE project_id = $1 AND kind IN ('shared', 'case') AND deleted_at IS NULL`, [projectId]);
  const byId = new Map<ArtefactId, string>(rows.map((row) => [artefactId(row.kind, row.number), row.title]));
  return (id) => byId.get(id) ?? '';
}

/** What is written beside the cases, so that whoever reads them knows what they are. */
const FORMAT = 'caderno-cases';

async function* casesJson(project: string, pages: Pages, beside: FilesBeside | null): AsyncGenerator<string> {
  yield `${JSON.stringify({ $schema: './cases.schema.json', format: FORMAT, version: 1, project }, null, 1).slice(0, -'\n}'.length)},\n "cases": [`;
  let comma = '';
  for await (const some of pages) {
    for (const { id, version, state, content, design } of some) {
      const one = { id, version, state, content, ...(design === null ? {} : { design }), ...(beside === null ? {} : { files: Object.fromEntries(beside.of(id, attachedOf(content)).map(({ attachment, path }) => [attachment.id, path])) }) };
      yield `${comma}\n  ${JSON.stringify(one, null, 1).replaceAll('\n', '\n  ')}`;
      comma = ',';
    }
  }
  yield `${comma === '' ? '' : '\n '}]\n}\n`;
}

/** The JSON Schema of what {@link casesJson} writes, made of the schemas that contents are checked by. */
function casesJsonSchema(): object {
  const one = z.object({ id: z.string(), version: z.int(), state: z.enum(ARTEFACT_STATES), content: KIND_SCHEMA.case.content, design: z.object({ requirements: z.array(z.string()), counts: z.record(z.string(), z.int()), instances: z.string() }).optional(), files: z.record(z.string(), z.string()).optional() });
  return z.toJSONSchema(z.object({ $schema: z.string(), format: z.literal(FORMAT), version: z.literal(1), project: z.string(), cases: z.array(one) }), { io: 'input', unrepresentable: 'any' });
}
