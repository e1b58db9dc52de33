import { parsePastedSteps, type PastedStep } from '../cases/index.ts';

/** Steps in a cell, numbered or a line each; what is expected stands behind an arrow, or in a cell of its own by the same numbers. */
export function stepsInCells(action: string, expected: string): PastedStep[] {
  const steps = parsePastedSteps(joinedLines(action));
  if (expected.trim() === '') return steps;
  const [lines, byNumber] = [parsePastedSteps(joinedLines(expected.trim())), numberedLines(expected.trim())];
  // One result for several steps is what the last of them comes to.
  if (lines.length === 1 && byNumber.size === 0) return steps.map((step, i) => (i === steps.length - 1 ? withResult(step, lines[0]?.action) : step));
  const results = byNumber.size === 0 ? lines.map((line) => line.action) : resultsFrom(numberedLines(action), byNumber);
  return Array.from({ length: Math.max(steps.length, results.length) }, (_, i) => withResult(steps[i] ?? { action: '', expected: '' }, results[i]));
}

function withResult({ action, expected }: PastedStep, result = ''): PastedStep {
  return { action, expected: [expected, result].filter(Boolean).join(' ') };
}

/** Whether a cell among rows of steps holds several of them. */
export function holdsSteps(action: string): boolean {
  return numberedLines(action).size > 1;
}

/** What stands behind each number at the beginning of a line; lines without one belong to the number above. Amounts and times (`1.5 litres`, `10:30`) are no such numbers. */
export function numberedLines(text: string): Map<number, string> {
  const byNumber = new Map<number, string>();
  let current: number | null = null;
  for (const line of text.split('\n')) {
    const [, number, rest] = /^\(?(\d{1,4})[.):](?!\d)\s?(.*)$/.exec(line) ?? [];
    if (number !== undefined) {
      current = Number(number);
      byNumber.set(current, rest ?? '');
    } else if (current !== null) byNumber.set(current, `${byNumber.get(current) ?? ''}\n${line.replace(/^ {3}/, '')}`);
  }
  return byNumber;
}

/** Where lines are numbered, those without a number go on with the one above. */
function joinedLines(text: string): string {
  const isNumbered = /^\s*\(?\d{1,4}[.):]\s/.test(text);
  return isNumbered ? text.replaceAll(/\n(?!\s*\(?\d{1,4}[.):]\s)(?!\s*(?:=>|⇒))\s*/g, ' ') : text;
}

/** The results of the steps of a cell in their order: where the steps begin with a later number than 1, as those in the rows below another do, the results may too. */
function resultsFrom(actions: ReadonlyMap<number, string>, results: ReadonlyMap<number, string>): string[] {
  const first = actions.size === 0 || Math.min(...results.keys()) < Math.min(...actions.keys()) ? 1 : Math.min(...actions.keys());
  return Array.from({ length: Math.max(...results.keys()) - first + 1 }, (_, i) => results.get(i + first)?.replaceAll(/\s*\n\s*/g, ' ').trim() ?? '');
}
