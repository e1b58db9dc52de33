/** A step read from pasted text. */
export interface PastedStep {
  readonly action: string;
  readonly expected: string;
}

const BULLET = /^\s*(?:[-*•‣–]\s+|\(?\d{1,4}[.):]\s+|[a-z][.)]\s+)?/;
const ARROW = /\t+|\s*(?:=>|⇒)\s*/;

/**
 * Steps from text pasted from anywhere: one a line; a tab, `=>` or `⇒` starts the expected result; numbering and
 * bullets are stripped; blank lines dropped. A line that begins with an arrow gives the step above its expectation.
 */
export function parsePastedSteps(text: string): PastedStep[] {
  const steps: PastedStep[] = [];
  for (const line of text.split(/\r\n|\r|\n/)) {
    if (line.trim() === '') continue;
    const bare = line.replace(BULLET, '');
    const [action = '', ...rest] = bare.split(ARROW).map((part) => part.trim());
    const expected = rest.filter((part) => part !== '').join(' ');
    const above = steps.at(-1);
    if (action === '' && above !== undefined && above.expected === '') steps[steps.length - 1] = { ...above, expected };
    else steps.push({ action, expected });
  }
  return steps;
}
