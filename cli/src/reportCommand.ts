import { writeFile } from 'node:fs/promises';
import { KIND_NAME, RISK_WORD, STANDING_WORD, TECHNIQUE_WORD, reportDocument, reportMarkdown, reportPage, type ReportWords } from '@caderno/contract';
import type { CadernoServer } from './cadernoServer.ts';
import { Failure } from './failure.ts';
import { EXIT, type ExitCode, type Print } from './featureCommands.ts';

/** What can be said of a report. */
export const REPORT_OPTIONS = { since: { type: 'string' }, note: { type: 'string' } } as const;

/** As they were typed. */
export interface ReportOptions {
  readonly since?: string | undefined;
  readonly note?: string | undefined;
}

/** Whoever reads a file is not known: days as ISO 8601 writes them, English numbers. */
const WORDS: ReportWords = {
  risk: RISK_WORD,
  technique: TECHNIQUE_WORD,
  standing: STANDING_WORD,
  kind: KIND_NAME,
  number: (value) => value.toLocaleString('en'),
  day: (iso) => iso.slice(0, 10),
  moment: (iso) => `${iso.slice(0, 16).replace('T', ' ')} UTC`,
  duration: (minutes) => (minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 60)} h`),
};

/** Writes the report of now: as a page where the file ends in .html, as Markdown where it ends in .md. */
export async function report(server: CadernoServer, file: string, { since, note }: ReportOptions, print: Print): Promise<ExitCode> {
  const ending = /\.(html|md)$/i.exec(file)?.[1]?.toLowerCase();
  if (ending === undefined) throw new Failure(`The report is written as .html or .md, not as ${file}.`);
  const baseline = since === undefined ? null : /^(?:B-)?(\d{1,9})$/i.exec(since)?.[1];
  if (baseline === undefined) throw new Failure(`--since is a baseline, as B-2, not ${since ?? ''}.`);
  const document = reportDocument(await server.report(baseline), note ?? '', WORDS);
  try {
    await writeFile(file, ending === 'md' ? reportMarkdown(document) : reportPage(document, WORDS));
  } catch (cause) {
    throw new Failure(`The report could not be written to ${file}.`, { cause });
  }
  print(`The report stands in ${file}.`);
  return EXIT.well;
}
