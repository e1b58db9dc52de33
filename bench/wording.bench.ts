import { BasisWording, Glossary } from '@caderno/core/basis';
import { largeTexts } from './largeBasis.ts';
import { p95, report, timed, type Figure } from './measure.ts';

const COUNT = 2_000;

/** Weak wording of a large basis, as the web worker finds it: all of it at first, then one text a keystroke. */
export async function wordingFigures(): Promise<Figure[]> {
  const texts = largeTexts(COUNT, 4711);
  const glossary = new Glossary(Array.from({ length: 200 }, (_, i) => ({ id: `t${i}`, term: `term ${i}`, forms: [`terms ${i}`], definition: '' })));
  let marks = 0;
  let wording = new BasisWording(glossary);
  const all = await timed(() => {
    wording = new BasisWording(glossary);
    texts.forEach((text, i) => wording.put({ id: `R-${i}`, text }));
    marks = texts.reduce((n, _, i) => n + wording.marksOf(`R-${i}`).length, 0);
  });
  if (marks < COUNT) throw new Error(`The measured basis has weak words: expected at least ${COUNT}, got ${marks}`);
  const typed = await p95(200, (i) => {
    wording.put({ id: 'R-7', text: `${texts[7]} And ${'more '.repeat(i % 40)}` });
    wording.marksOf('R-7');
  });
  return [
    { what: `weak wording of ${COUNT} requirements (${marks} marks)`, ms: all, budget: 1_000 },
    { what: 'weak wording of the text being typed, p95', ms: typed, budget: 50 },
  ];
}

if (process.argv[1]?.endsWith('wording.bench.ts')) process.exitCode = report(await wordingFigures()) ? 0 : 1;
