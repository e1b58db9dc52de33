import type { MatrixCell } from '@caderno/core/matrix';
import { CELL_STANDINGS } from '@caderno/core/coverage';
import { STANDING_WORD, countOf, locale } from '../look/index.ts';
import type { Basis, MatrixView, Side, Tests } from './matrixView.ts';
import type { ItemFigure } from './useAxes.ts';

const ONE: Readonly<Record<Basis | Tests, string>> = { requirements: 'requirement', conditions: 'condition', cases: 'case', scenarios: 'scenario', suites: 'suite' };

/** `3 of 48 requirements`. */
export function foundOf(found: number, all: number, many: Basis | Tests): string {
  return found === all ? countOf(all, ONE[many], many) : `${found.toLocaleString(locale())} of ${countOf(all, ONE[many], many)}`;
}

export function countedAs(count: number, many: Basis | Tests): string {
  return countOf(count, ONE[many], many);
}

/** `3 requirements without any case`, `1 case covers nothing`. */
export function aloneWords(count: number, side: Side, view: Pick<MatrixView, Side>): string {
  if (side === 'tests') return `${countedAs(count, view.tests)} cover${count === 1 ? 's' : ''} nothing`;
  return `${countedAs(count, view.basis)} without any ${ONE[view.tests]}`;
}

/** `8 shown, 1 linked only`. */
export function cellWords({ counts }: Pick<MatrixCell, 'counts'>): string {
  return CELL_STANDINGS.flatMap((standing, i) => ((counts[i] ?? 0) === 0 ? [] : [`${(counts[i] ?? 0).toLocaleString(locale())} ${STANDING_WORD[standing]}`])).join(', ');
}

/** `66 %`, `none`, or how many items it shows. */
export function figureWords(figure: ItemFigure): string {
  if (figure.kind === 'shows') return figure.items.toLocaleString(locale());
  return figure.percent === null ? 'none' : `${figure.percent} %`;
}

/** The same in a sentence. */
export function figureSaid(figure: ItemFigure): string {
  if (figure.kind === 'shows') return `shows ${countOf(figure.items, 'item')}`;
  return figure.percent === null ? 'nothing to show' : `${figure.percent} % shown`;
}
