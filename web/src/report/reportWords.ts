import type { ReportWords } from '@caderno/core/report';
import { parseISO } from 'date-fns';
import { KIND_NAME, RISK_WORD, STANDING_WORD, TECHNIQUE_WORD, dateAndTime, durationOf, locale } from '../look/index.ts';

/** A day as the reader writes it. */
export function dayWords(iso: string): string {
  return parseISO(iso).toLocaleDateString(locale(), { dateStyle: 'medium' });
}

/** How a report says things to whoever reads it here, and whoever gets a file of theirs. */
export const REPORT_WORDS: ReportWords = {
  risk: RISK_WORD,
  technique: TECHNIQUE_WORD,
  standing: STANDING_WORD,
  kind: KIND_NAME,
  number: (value) => value.toLocaleString(locale()),
  day: dayWords,
  moment: dateAndTime,
  duration: durationOf,
};
