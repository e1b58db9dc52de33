import { ENCODINGS, SEPARATORS, type ReadingOptions, type SourceDocument, type TableReading } from '@caderno/core/exchange';
import { Choose, countOf } from '../look/index.ts';

const SEPARATOR_WORD: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };

interface Props {
  readonly document: SourceDocument;
  readonly reading: ReadingOptions;
  readonly header: TableReading['header'];
  readonly onChange: (reading: ReadingOptions) => void;
  readonly onHeader: (header: TableReading['header']) => void;
}

/** Rows in which the names of columns may be looked for. */
const HEADERS = [{ value: '', name: 'as it looks' }, { value: '0', name: 'nowhere' }, ...[1, 2, 3, 4, 5].map((n) => ({ value: String(n), name: `in row ${n}` }))];

/** How a file was read, each part of which can be corrected. */
export function HowRead({ document, reading, header, onChange, onHeader }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <span className="text-ink2">{document.format === 'xlsx' ? 'A workbook' : 'A text file'},</span>
      {document.format === 'xlsx' ? (
        <Choose label="Sheet" showLabel value={reading.sheet ?? ''} options={[{ value: '', name: 'the first with content' }, ...document.sheets.map((s) => ({ value: s, name: s }))]} onChange={(sheet) => onChange({ ...reading, sheet: sheet === '' ? null : sheet })} />
      ) : (
        <>
          <Choose label="Separator" showLabel value={reading.separator ?? ''} options={[{ value: '', name: 'as found' }, ...SEPARATORS.map((s) => ({ value: s as string, name: SEPARATOR_WORD[s] ?? s }))]} onChange={(separator) => onChange({ ...reading, separator: separator === '' ? null : separator })} />
          <Choose label="Encoding" showLabel value={reading.encoding ?? ''} options={[{ value: '', name: 'as found' }, ...ENCODINGS.map((e) => ({ value: e as string, name: e }))]} onChange={(encoding) => onChange({ ...reading, encoding: ENCODINGS.find((e) => e === encoding) ?? null })} />
        </>
      )}
      <Choose label="Names of columns" showLabel value={header === null ? '' : String(header)} options={HEADERS} onChange={(value) => onHeader(value === '' ? null : Number(value))} />
      <span className="text-ink2">{countOf(document.records.length, 'row')}</span>
    </div>
  );
}
