import type { Parameter } from '@caderno/core/cases';
import { guessParameterType, type RowColumn, type RowsPlan, type SourceDocument, type ValueReading } from '@caderno/core/exchange';
import { useMemo } from 'react';
import { Choose, countOf, options } from '../look/index.ts';

/** The cells that stand below typed columns. */
export function typedCells(document: SourceDocument, columns: readonly RowColumn[], parameters: readonly Parameter[]) {
  return columns.flatMap((column, i) => {
    const type = typeOf(document, column, i, parameters);
    return type === null || type === 'text' ? [] : [{ type, cells: document.records.map((r) => r.cells[i] ?? '') }];
  });
}

function typeOf(document: SourceDocument, column: RowColumn, at: number, parameters: readonly Parameter[]): Parameter['type'] | null {
  if (column.kind === 'parameter') return parameters.find((p) => p.id === column.id)?.type ?? null;
  return column.kind === 'new' ? guessParameterType(document.records.map((r) => r.cells[at] ?? '')) : null;
}

const NUMBERS_WORD: Record<ValueReading['numbers'], string> = { asWritten: 'as written', comma: 'a comma before decimals' };
const DATES_WORD: Record<ValueReading['dates'], string> = { asWritten: 'as written', dayFirst: 'day before month', monthFirst: 'month before day' };

interface Props {
  readonly document: SourceDocument;
  readonly values: ValueReading;
  readonly columns: readonly RowColumn[];
  readonly parameters: readonly Parameter[];
  readonly plan: RowsPlan;
  readonly onChange: (part: Partial<ValueReading>) => void;
}

/** How numbers and dates are meant, where a column has such a type, and what that makes of the cells. */
export function HowMeant({ document, values, columns, parameters, plan: { understood }, onChange }: Props) {
  const types = useMemo(() => columns.map((column, i) => typeOf(document, column, i, parameters)), [columns, document, parameters]);
  const hasNumbers = types.some((t) => t === 'whole' || t === 'decimal');
  const hasDates = types.some((t) => t === 'date' || t === 'dateTime');
  if (!hasNumbers && !hasDates) return null;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 text-sm">
      {hasNumbers && <Choose label="Numbers" showLabel value={values.numbers} options={options(NUMBERS_WORD)} onChange={(numbers) => onChange({ numbers })} />}
      {hasDates && <Choose label="Dates" showLabel value={values.dates} options={options(DATES_WORD)} onChange={(dates) => onChange({ dates })} />}
      {understood.count > 0 && (
        <span className="text-ink2">
          {countOf(understood.count, 'cell')} understood:{' '}
          {understood.examples.map(({ from, to }) => (
            <span key={from} className="mr-3 whitespace-nowrap font-mono text-xs">
              {from} → {to}
            </span>
          ))}
        </span>
      )}
    </div>
  );
}
