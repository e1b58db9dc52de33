import type { Parameter, ParameterType } from '../cases/index.ts';
import { isoMoment, parseDate, pointNumber } from '../values/index.ts';

/** How numbers and dates of a file are meant, where its column has a type. Everything else stays as it is written. */
export interface ValueReading {
  /** A comma before the decimals, points or spaces between thousands. */
  readonly numbers: 'asWritten' | 'comma';
  readonly dates: 'asWritten' | 'dayFirst' | 'monthFirst';
}

export const AS_WRITTEN: ValueReading = { numbers: 'asWritten', dates: 'asWritten' };

const COMMA_NUMBER = /^[+-]?(?:\d{1,3}(?:[. \u00a0\u202f]\d{3})+|\d+)(?:,\d+)?$/;
const WITH_COMMA = /,\d+$/;
const POINT_NUMBER = /^[+-]?\d+\.\d+$/;
const SLASHED = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[ T](\d{1,2}:\d{2}(?::\d{2})?))?$/;

/** What is meant by a cell in a column of a type; the cell itself where that is nothing else, or cannot be told. */
export function understoodCell(type: ParameterType, cell: string, { numbers, dates }: ValueReading): string {
  switch (type) {
    case 'whole':
    case 'decimal':
      return numbers === 'comma' ? (pointNumber(cell, ',') ?? cell) : cell;
    case 'date':
    case 'dateTime':
      return dates === 'asWritten' ? cell : (isoDate(cell.trim(), type, dates) ?? cell);
    case 'text':
    case 'time':
    case 'yesNo':
      return cell;
  }
}

function isoDate(cell: string, type: 'date' | 'dateTime', order: 'dayFirst' | 'monthFirst'): string | null {
  const iso = SLASHED.test(cell) ? isoMoment(cell, order) : null;
  return iso !== null && iso.includes(' ') === (type === 'dateTime') ? iso : null;
}

const PLAIN_WHOLE = /^[+-]?(?:0|[1-9]\d*)$/;
const ANY_DECIMAL = /^[+-]?(?:0|[1-9]\d{0,2}(?:[. ]\d{3})*|[1-9]\d*)(?:[.,]\d+)?$/;

/** The type of which all cells of a new column are; text where they are of none. Zeros in front are no number's. */
export function guessParameterType(cells: readonly string[]): ParameterType {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const all = (test: (cell: string) => boolean): boolean => filled.length > 0 && filled.every(test);
  if (all((cell) => PLAIN_WHOLE.test(cell))) return 'whole';
  if (all((cell) => ANY_DECIMAL.test(cell))) return 'decimal';
  if (all((cell) => parseDate(cell) !== null || SLASHED.exec(cell)?.[4] === undefined && SLASHED.test(cell))) return 'date';
  return all((cell) => /^(?:yes|no)$/i.test(cell)) ? 'yesNo' : 'text';
}

/**
 * What the cells of typed columns tell of how they are meant: a comma where one stands before decimals and no number
 * has a point there; an order of day and month only where a day above 12 proves it and none disproves it.
 */
export function guessValueReading(columns: readonly { readonly type: Parameter['type']; readonly cells: readonly string[] }[]): ValueReading {
  const cellsOf = (...types: ParameterType[]): string[] => columns.flatMap((c) => (types.includes(c.type) ? c.cells.map((cell) => cell.trim()) : []));
  const numbers = cellsOf('whole', 'decimal');
  const hasComma = numbers.some((cell) => COMMA_NUMBER.test(cell) && WITH_COMMA.test(cell));
  const dates = cellsOf('date', 'dateTime').flatMap((cell) => {
    const parts = SLASHED.exec(cell);
    return parts === null ? [] : [{ first: Number(parts[1]), second: Number(parts[2]) }];
  });
  const [dayFirst, monthFirst] = [dates.some((d) => d.first > 12), dates.some((d) => d.second > 12)];
  return {
    numbers: hasComma && !numbers.some((cell) => POINT_NUMBER.test(cell)) ? 'comma' : 'asWritten',
    dates: dayFirst === monthFirst ? 'asWritten' : dayFirst ? 'dayFirst' : 'monthFirst',
  };
}
