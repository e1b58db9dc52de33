import { seeded } from './largeProject.ts';

const SUBJECTS = ['reading', 'bill', 'member', 'meter', 'payment', 'message', 'clerk', 'tariff'];
const ENDINGS = ['is stored within 3 seconds', 'must be shown to the member quickly', 'lies between 0 and 99 999', 'is refused with a clear message, and nothing is written', 'has 6 to 10 characters', 'goes to the office, the bank, etc.', 'follows section 4.2 of the handbook', 'is kept for 10 years'];

/** Texts as requirements have them: three to six sentences, some weak. Deterministic for a seed. */
export function largeTexts(count: number, seed: number): string[] {
  const random = seeded(seed);
  const pick = (list: readonly string[]): string => list[random(list.length)] ?? '';
  return Array.from({ length: count }, () => Array.from({ length: 3 + random(4) }, () => `The ${pick(SUBJECTS)} ${pick(ENDINGS)}.`).join(' '));
}

/** A table of requirements in four levels, as a register would give it out. */
export function largeCsv(count: number, seed: number): string {
  const texts = largeTexts(count, seed);
  const lines = texts.map((text, i) => `REQ-${i + 1},Requirement ${i + 1},"${text}",${i % 10 === 0 ? '' : `REQ-${i - (i % 10) + 1}`},Module ${Math.floor(i / 500)},${['high', 'medium', 'low'][i % 3]},Owner ${i % 7}`);
  return ['id,title,text,parent,module,risk,owner', ...lines].join('\n');
}
