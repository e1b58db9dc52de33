import type { ArtefactKind } from '../artefacts/index.ts';
import { percentDown, shownRatio, type Ratio } from '../coverage/index.ts';
import { readOwn, type OwnField } from '../fields/index.ts';
import { parseDecimal, sumOf, type Decimal } from '../values/index.ts';
import { columnsOf, fieldOfColumn, isOwnColumn, type BuiltInColumn, type ListColumn, type ListProject, type Listed } from './columns.ts';
import { grouped } from './grouping.ts';

/** What is told of those who stand together: how many there are, what a column of numbers comes to, or how much of their coverage items is shown. */
export type Measure = 'number' | ListColumn;

/** What is counted: by what down, by what across (null: not across), and what of them. */
export interface CountsAsked {
  readonly down: ListColumn;
  readonly across: ListColumn | null;
  readonly measure: Measure;
}

/** A number, or the share of items that are shown; null where nobody has such a thing. */
export type Figure = { readonly kind: 'amount'; readonly amount: Decimal } | { readonly kind: 'share'; readonly share: Ratio } | null;

export interface Counted<L extends Listed> {
  readonly members: readonly L[];
  readonly figure: Figure;
}

/** A line of a table of counts; `value` null: those who have nothing in the column. `cells` are as many as there are columns across. */
export interface CountsLine<L extends Listed> extends Counted<L> {
  readonly value: string | null;
  readonly cells: readonly Counted<L>[];
}

/** A table of counts. Who has several values stands in several lines; each sum counts them once. */
export interface Counts<L extends Listed> {
  readonly lines: readonly CountsLine<L>[];
  readonly across: readonly (Counted<L> & { readonly value: string | null })[];
  readonly whole: Counted<L>;
}

const NUMBERS: readonly BuiltInColumn[] = ['steps', 'rows', 'instances', 'minutes', 'scenarios', 'heldUp'];

/** What can be told of artefacts of a kind, besides how many there are. */
export function measuresOf(kind: ArtefactKind, fields: readonly OwnField[]): readonly Measure[] {
  return ['number', ...columnsOf(kind, fields).filter((column) => (isOwnColumn(column) ? fieldOfColumn(column, fields)?.type === 'number' : column === 'coverage' || NUMBERS.includes(column)))];
}

/** Whether it is one of those that are counted: headings order requirements and are none. */
export function isCounted(listed: Listed): boolean {
  return listed.type !== 'heading';
}

/** More cells than this are read by nobody, and are not counted. */
export const MOST_CELLS = 40_000;

/**
 * Counts and sums of a list by one or two columns, in the order of those columns; null: they would have more than
 * {@link MOST_CELLS} cells. Sums are exact, whatever decimals were written. `now` in milliseconds since 1970, for ages.
 */
export function countsOf<L extends Listed>(list: readonly L[], { down, across, measure }: CountsAsked, now: number, project: ListProject): Counts<L> | null {
  // Whoever stands in many cells is read once.
  const amounts = new Map<Listed, Decimal | null>(list.map((listed) => [listed, amountIn(measure, listed, project.fields)]));
  const counted = (members: readonly L[]): Counted<L> => ({ members, figure: figureFrom(members, measure, (listed) => amounts.get(listed) ?? null) });
  const lines = grouped(list, down, now, project);
  const columns = across === null ? [] : grouped(list, across, now, project);
  if (lines.length * (columns.length + 1) > MOST_CELLS) return null;
  const columnsWith = new Map<L, number[]>(list.map((listed) => [listed, []]));
  columns.forEach(({ members }, i) => members.forEach((listed) => columnsWith.get(listed)?.push(i)));
  const cellsOf = (members: readonly L[]): readonly Counted<L>[] => {
    const cells = columns.map((): L[] => []);
    for (const listed of members) for (const i of columnsWith.get(listed) ?? []) cells[i]?.push(listed);
    return cells.map(counted);
  };
  return {
    lines: lines.map(({ value, members }) => ({ value, ...counted(members), cells: cellsOf(members) })),
    across: columns.map(({ value, members }) => ({ value, ...counted(members) })),
    whole: counted(list),
  };
}

/** What a measure comes to for all of them together. */
export function figureOf(members: readonly Listed[], measure: Measure, fields: readonly OwnField[]): Figure {
  return figureFrom(members, measure, (listed) => amountIn(measure, listed, fields));
}

function figureFrom(members: readonly Listed[], measure: Measure, amountOf: (listed: Listed) => Decimal | null): Figure {
  if (measure === 'number') return { kind: 'amount', amount: whole(members.length) };
  if (measure === 'coverage') return shareOf(members);
  const amounts = members.flatMap((listed) => amountOf(listed) ?? []);
  return amounts.length === 0 ? null : { kind: 'amount', amount: sumOf(amounts) };
}

function shareOf(members: readonly Listed[]): Figure {
  const share = { part: 0, of: 0 };
  for (const { standings } of members) {
    if (standings === undefined) continue;
    const { part, of } = shownRatio(standings);
    share.part += part;
    share.of += of;
  }
  return share.of === 0 ? null : { kind: 'share', share };
}

/** A figure for a chart, which draws no finer; shares in whole percent, rounded down. */
export function drawnFigure(figure: Figure): number | null {
  if (figure === null) return null;
  return figure.kind === 'share' ? percentDown(figure.share) : Number(figure.amount.units) / 10 ** figure.amount.scale;
}

function amountIn(column: Measure, listed: Listed, fields: readonly OwnField[]): Decimal | null {
  if (column !== 'number' && isOwnColumn(column)) {
    const field = fieldOfColumn(column, fields);
    const value = field === undefined ? undefined : listed.own[field.id];
    const read = field?.type !== 'number' || value === undefined ? null : readOwn(field, value);
    return read?.fits === true ? parseDecimal(read.shown[0] ?? '') : null;
  }
  switch (column) {
    case 'minutes': {
      const each = listed.estimate == null ? null : parseDecimal(String(listed.estimate));
      return each === null ? null : { units: each.units * BigInt(listed.instances ?? 1), scale: each.scale };
    }
    case 'steps':
    case 'rows':
    case 'instances':
    case 'scenarios':
    case 'heldUp': {
      const number = listed[column];
      return number === undefined ? null : whole(number);
    }
    default:
      return null;
  }
}

function whole(number: number): Decimal {
  return { units: BigInt(number), scale: 0 };
}
