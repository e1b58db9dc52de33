import { artefactId, type DataSetId } from '../artefacts/index.ts';
import { newRow, parameterId, rowId, type Parameter, type Row } from '../cases/index.ts';
import { examplesKeywordLine, examplesTable, withExamplesTable } from './examplesTable.ts';
import { lineId, type FeatureContent, type FeatureLine, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';

/** A data set as it is taken. */
export interface TakenDataSet {
  readonly id: DataSetId;
  readonly version: number;
  readonly parameters: readonly Pick<Parameter, 'id' | 'name'>[];
  readonly rows: readonly Row[];
}

/** In the file, so that it goes to the code and comes back with it. */
const REMARK = /^\s*#\s*Rows of D-(\d+) v(\d+)\s*$/;

/** Which data set the rows of a table of examples were taken from, and in which version; null: from none. */
export function rowsTakenFrom(content: FeatureContent, part: PartId, at: number): { readonly id: DataSetId; readonly version: number } | null {
  const found = remarkOf(content, part, at);
  const [, number, version] = REMARK.exec(found?.text ?? '') ?? [];
  return number === undefined ? null : { id: artefactId('dataSet', Number(number)), version: Number(version) };
}

/**
 * The feature with the rows of a data set as the examples there, and a comment that says so. Columns are those of the
 * data set by their names, with those that only the outline has behind them; there a row keeps what a row of its name
 * had. Taken again, rows that are called alike stay the lines they were.
 */
export function withRowsTaken(content: FeatureContent, part: PartId, at: number, set: TakenDataSet, newId: NewId): FeatureContent {
  const before = examplesTable(content, part, at);
  if (before === null) return content;
  const own = before.parameters.filter((p) => !set.parameters.some((s) => s.name === p.name));
  const named = new Map(before.rows.filter((r) => r.name !== '').map((r) => [r.name, r]));
  const parameters = [...set.parameters.map(({ name }): Parameter => ({ id: parameterId(name), name, type: 'text', default: '', description: '' })), ...own];
  const rows = set.rows.map((row): Row => {
    const was = named.get(row.name);
    if (was !== undefined) named.delete(row.name);
    const cells = [...set.parameters.map((p) => [p.name, row.cells[p.id] ?? ''] as const), ...own.map((p) => [p.id as string, was?.cells[p.id] ?? ''] as const)];
    return newRow(was?.id ?? rowId(newId()), row.name, Object.fromEntries(cells.filter(([, cell]) => cell !== '')));
  });
  return remarked(withExamplesTable(content, part, at, { parameters, rows }, newId), part, at, `# Rows of ${set.id} v${set.version}`, newId);
}

function remarkOf(content: FeatureContent, part: PartId, at: number): FeatureLine | undefined {
  const lines = content.parts.find((p) => p.id === part)?.lines ?? [];
  const keyword = examplesKeywordLine(content, part, at);
  if (keyword === null) return undefined;
  const table = lines.findIndex((l, i) => i > keyword && /^\s*\|/.test(l.text));
  return lines.slice(keyword + 1, table < 0 ? undefined : table).find((l) => REMARK.test(l.text.replace(/\r$/, '')));
}

function remarked(content: FeatureContent, part: PartId, at: number, remark: string, newId: NewId): FeatureContent {
  const found = remarkOf(content, part, at);
  const keyword = examplesKeywordLine(content, part, at) ?? 0;
  return {
    ...content,
    parts: content.parts.map((p) => {
      if (p.id !== part) return p;
      const above = p.lines[keyword]?.text ?? '';
      const text = `${/^\s*/.exec(above)?.[0] ?? ''}  ${remark}${above.endsWith('\r') ? '\r' : ''}`;
      const lines = found === undefined ? p.lines.toSpliced(keyword + 1, 0, { id: lineId(newId()), text }) : p.lines.map((l) => (l.id === found.id ? { ...l, text } : l));
      return { ...p, lines };
    }),
  };
}
