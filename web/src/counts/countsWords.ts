import type { ArtefactKind } from '@caderno/core/artefacts';
import { percentDown } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { formatDecimal } from '@caderno/core/values';
import type { Figure, Measure } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import { columnWord } from '../listing/index.ts';
import { KIND_NAME, locale } from '../look/index.ts';

/** What is told of those who stand together. */
export function measureWord(measure: Measure, fields: readonly OwnField[]): string {
  return measure === 'number' ? 'How many' : measure === 'coverage' ? 'Share shown' : measure === 'heldUp' ? 'Items held up' : columnWord(measure, fields);
}

/** What a table of counts is about, in one line. */
export function countsTitle(kind: ArtefactKind, { down, across, measure }: CountsView, fields: readonly OwnField[]): string {
  const by = [down, ...(across === null ? [] : [across])].map((column) => inLine(columnWord(column, fields))).join(' and ');
  const many = KIND_NAME[kind][1];
  return measure === 'number' ? `${capital(many)} by ${by}` : `${measureWord(measure, fields)}: ${many} by ${by}`;
}

/** A figure as it stands in a cell: an amount with the decimals that it has, a share in whole percent, rounded down. */
export function figureWords(figure: Figure): string {
  if (figure === null) return '–';
  if (figure.kind === 'share') return `${percentDown(figure.share)} %`;
  const { scale } = figure.amount;
  return new Intl.NumberFormat(locale(), { minimumFractionDigits: Math.min(scale, 20), maximumFractionDigits: Math.min(scale, 20) }).format(formatDecimal(figure.amount) as `${number}`);
}

/** In the middle of a line a word of ours is small; a name that somebody gave stays as it is. */
function inLine(word: string): string {
  return /^\p{Lu}\p{Ll}*( \p{Ll}+)*$/u.test(word) ? word.charAt(0).toLowerCase() + word.slice(1) : word;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
