import { writeFile } from 'node:fs/promises';
import { badge, itemsToShow, linkedRatio, percentDown, readPercent, reaches, shownRatio, type Hundredths, type Ratio, type StandingCounts, type TrendFigures } from '@caderno/contract';
import type { CadernoServer } from './cadernoServer.ts';
import { Failure } from './failure.ts';
import { EXIT, type ExitCode, type Print } from './featureCommands.ts';

/** What can be asked of coverage. */
export const COVERAGE_OPTIONS = { risk: { type: 'string' }, module: { type: 'string' }, suite: { type: 'string' }, shown: { type: 'string' }, linked: { type: 'string' }, analysed: { type: 'boolean', default: false }, badge: { type: 'string' } } as const;

/** As they were typed. */
export interface CoverageOptions {
  readonly risk?: string | undefined;
  readonly module?: string | undefined;
  readonly suite?: string | undefined;
  readonly shown?: string | undefined;
  readonly linked?: string | undefined;
  readonly analysed: boolean;
  readonly badge?: string | undefined;
}

/** What is counted, and what it is called. */
interface Counted {
  readonly name: string;
  readonly counts: StandingCounts;
}

/** Tells how much is shown, writes a badge where one is wanted, and holds it against what is asked for. */
export async function coverage(server: CadernoServer, options: CoverageOptions, print: Print): Promise<ExitCode> {
  const [shown, linked] = [asked('--shown', options.shown), asked('--linked', options.linked)];
  const { figures } = await server.figures();
  const { name, counts } = countedOf(figures, options);
  const [shownShare, linkedShare] = [shownRatio(counts), linkedRatio(counts)];
  print(shownShare.of === 0 ? `${name}: nothing to show yet.` : `${name}: ${percentDown(shownShare)} % shown, ${counts.shown.toLocaleString('en')} of ${itemsToShow(counts).toLocaleString('en')} coverage items; ${percentDown(linkedShare)} % with items that are only linked.`);
  if (figures.unanalysed > 0) print(`${figures.unanalysed.toLocaleString('en')} of ${figures.requirements.toLocaleString('en')} requirements are not analysed yet: nothing of them is counted.`);
  if (options.badge !== undefined) await writeBadge(options.badge, badge(name === 'The project' ? 'design coverage' : `coverage, ${name}`, shownShare), print);
  const missed = [...tooLittle('shown', shownShare, shown), ...tooLittle('shown or linked', linkedShare, linked), ...(options.analysed && figures.unanalysed > 0 ? ['Asked for: every requirement analysed.'] : [])];
  missed.forEach(print);
  return missed.length === 0 ? EXIT.well : EXIT.differs;
}

function asked(option: string, text: string | undefined): Hundredths | null {
  if (text === undefined) return null;
  const percent = readPercent(text);
  if (percent === null) throw new Failure(`${option} is a percentage from 0 to 100, as 80 or 79.5, not ${text}.`);
  return percent;
}

function countedOf(figures: TrendFigures, { risk, module, suite }: CoverageOptions): Counted {
  if ([risk, module, suite].filter((o) => o !== undefined).length > 1) throw new Failure('Say one of --risk, --module and --suite.');
  if (risk !== undefined) {
    if (risk !== 'high' && risk !== 'medium' && risk !== 'low') throw new Failure(`--risk is high, medium or low, not ${risk}.`);
    return { name: `${risk} risk`, counts: figures.byRisk[risk] };
  }
  if (module !== undefined) return found(figures.byModule.find((m) => m.module === module), module, `There is no module ${module} with requirements. There are: ${figures.byModule.map((m) => m.module).filter(Boolean).join(', ')}.`);
  if (suite !== undefined) return found(figures.suites.find((s) => s.id === suite), suite, `There is no suite ${suite}. There are: ${figures.suites.map((s) => `${s.id} ${s.title}`).join(', ')}.`);
  return { name: 'The project', counts: figures.counts };
}

function found(part: { readonly counts: StandingCounts } | undefined, name: string, otherwise: string): Counted {
  if (part === undefined) throw new Failure(otherwise);
  return { name, counts: part.counts };
}

function tooLittle(what: string, share: Ratio, wanted: Hundredths | null): string[] {
  if (wanted === null || reaches(share, wanted)) return [];
  return [share.of === 0 ? `Asked for: ${wanted / 100} % ${what}. There is nothing to show yet.` : `Asked for: ${wanted / 100} % ${what}. ${Math.ceil((wanted * share.of) / 10_000) - share.part} more items would do.`];
}

async function writeBadge(file: string, svg: string, print: Print): Promise<void> {
  try {
    await writeFile(file, svg);
  } catch (cause) {
    throw new Failure(`The badge could not be written to ${file}.`, { cause });
  }
  print(`The badge stands in ${file}.`);
}
