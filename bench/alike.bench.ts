import { artefactId } from '@caderno/core/artefacts';
import { plainStep, stepId, type Step } from '@caderno/core/cases';
import { findAlike } from '@caderno/core/shared';
import { seededRandom } from '@caderno/core/generation';
import { report, timed, type Figure } from './measure.ts';

const VERBS = ['Open', 'Enter', 'Choose', 'Press', 'Look up', 'Send', 'Print', 'Close', 'Mark', 'Move'];
const THINGS = 'ledger,reading,meter,bill,tariff,member,receipt,allowance,notice,appeal,payment,file,address,household,bracket,channel,language,letter,clerk,auditor'.split(',');
const PLACES = 'in the office,of the month,at the counter,by letter,for the household,on the page,of last year,under the name,with a note,before noon'.split(',');

/** Steps as people write them: runs that stand in many cases, most nearly like others, a share of their own. */
function largeCases(count: number) {
  const random = seededRandom(4711);
  const pick = <T>(list: readonly T[]): T => list[random(list.length)] as T;
  const sentence = (): string => `${pick(VERBS)} the ${pick(THINGS)} ${pick(PLACES)} and the ${pick(THINGS)} ${pick(PLACES)} of <${pick(THINGS)}> ${random(10) < 3 ? random(10_000) : ''}`;
  const blocks = Array.from({ length: 200 }, () => Array.from({ length: 3 + random(6) }, sentence));
  return Array.from({ length: count }, (_, n) => {
    const texts = [...Array.from({ length: random(6) }, sentence), ...(random(2) === 0 ? pick(blocks) : []), ...Array.from({ length: 2 + random(4) }, sentence)];
    return { id: artefactId('case', n + 1), content: { steps: texts.map((text, i): Step => plainStep(stepId(`s${i}`), text, i % 3 === 0 ? `the ${pick(THINGS)} is shown` : '')) } };
  });
}

/** All against all, in one go; in the application it gives way after every slice. */
export async function alikeFigures(): Promise<Figure[]> {
  const cases = largeCases(20_000);
  const steps = cases.reduce((n, c) => n + c.content.steps.length, 0);
  let runs = 0;
  let longest = 0;
  const ms = await timed(() => {
    const search = findAlike(cases);
    for (let began = performance.now(); ; ) {
      const next = search.next();
      longest = Math.max(longest, performance.now() - began);
      began = performance.now();
      if (next.done !== true) continue;
      runs = next.value.runs.length;
      return;
    }
  });
  if (runs < 100) throw new Error(`The measured cases have runs in common: expected over 100, got ${runs}`);
  return [
    { what: `runs and cases nearly alike among 20 000 cases (${steps} steps)`, ms, budget: 5_000 },
    { what: 'the longest slice of it, in which nothing else is answered', ms: longest, budget: 500 },
  ];
}

if (process.argv[1]?.endsWith('alike.bench.ts')) process.exitCode = report(await alikeFigures()) ? 0 : 1;
