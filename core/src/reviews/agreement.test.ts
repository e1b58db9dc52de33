import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { answerOf, mayAgree, neededOf, seenUpTo, standingOf, waitsFor, type Answer, type Asked, type AgreementRule } from './index.ts';

const asked = (...people: string[]): Asked[] => people.map((person) => ({ person, may: !person.startsWith('x') }));
const yes = (person: string, version: number): Answer => ({ person, version, agrees: true });
const no = (person: string, version: number): Answer => ({ person, version, agrees: false });
const TWO: AgreementRule = { needed: 2, authors: false };

test('enough of those who may agree to this version; one objection holds it up until it is taken back', () => {
  const of = { version: 3, authors: ['ana'] };
  const people = asked('ana', 'bo', 'cy', 'xed');
  const standing = (answers: Answer[], rule = TWO) => standingOf(of, people, answers, rule);
  expect(standing([yes('bo', 3)])).toBe('waiting');
  expect(standing([yes('bo', 3), yes('cy', 3)])).toBe('agreed');
  expect(standing([yes('bo', 3), yes('cy', 2)])).toBe('waiting');
  expect(standing([yes('bo', 3), yes('ana', 3), yes('xed', 3)])).toBe('waiting');
  expect(standing([yes('bo', 3), yes('ana', 3)], { needed: 2, authors: true })).toBe('agreed');
  expect(standing([yes('bo', 3), yes('cy', 3), no('xed', 3)])).toBe('objected');
  expect(standing([yes('bo', 3), yes('cy', 3), no('xed', 3), yes('xed', 3)])).toBe('agreed');
  expect(standing([yes('bo', 3), yes('cy', 3), no('dee', 3)])).toBe('agreed');
  expect(standing([yes('bo', 3)], { needed: 'all', authors: false })).toBe('waiting');
  expect(standing([yes('bo', 3), yes('cy', 3)], { needed: 'all', authors: false })).toBe('agreed');
});

test('a version waits for those who may agree to it and have said nothing of it', () => {
  const waits = (person: string, answers: Answer[] = []) => waitsFor({ version: 3, authors: ['ana'] }, asked('ana', 'bo', 'xed'), answers, TWO, person);
  expect([waits('ana'), waits('bo'), waits('xed'), waits('dee'), waits('bo', [yes('bo', 2)]), waits('bo', [no('bo', 3)])]).toEqual([false, true, false, false, true, false]);
});

test('what cannot come about is known: fewer may agree than are needed', () => {
  expect(neededOf({ version: 1, authors: ['ana'] }, asked('ana', 'bo'), TWO)).toBeNull();
  expect(neededOf({ version: 1, authors: ['ana'] }, asked('ana'), { needed: 'all', authors: false })).toBeNull();
  expect(neededOf({ version: 1, authors: [] }, asked('ana', 'bo', 'xed'), { needed: 'all', authors: false })).toBe(2);
});

test('one looks at what changed since one agreed, or since it was agreed; at all of it the first time', () => {
  expect(seenUpTo({ version: 5, since: null }, [], 'bo')).toBeNull();
  expect(seenUpTo({ version: 5, since: 2 }, [yes('cy', 4)], 'bo')).toBe(2);
  expect(seenUpTo({ version: 5, since: 2 }, [yes('bo', 4), yes('bo', 3), no('bo', 4)], 'bo')).toBe(3);
  expect(seenUpTo({ version: 5, since: null }, [yes('bo', 5)], 'bo')).toBeNull();
});

const person = fc.constantFrom('ana', 'bo', 'cy', 'dee');
const answer = fc.record({ person, version: fc.integer({ min: 1, max: 3 }), agrees: fc.boolean() });
const people = fc.uniqueArray(fc.record({ person, may: fc.boolean() }), { selector: (a) => a.person });
const rule = fc.record({ needed: fc.oneof(fc.constant('all' as const), fc.integer({ min: 1, max: 3 })), authors: fc.boolean() });

/** Slow and plain: the judge. */
function judged(version: number, authors: readonly string[], some: readonly Asked[], answers: readonly Answer[], { needed, authors: own }: AgreementRule): string {
  const last = new Map<string, boolean>();
  for (const a of answers) if (a.version === version) last.set(a.person, a.agrees);
  let able = 0;
  let agree = 0;
  for (const a of some) {
    if (last.get(a.person) === false) return 'objected';
    if (!a.may || (!own && authors.includes(a.person))) continue;
    able += 1;
    if (last.get(a.person) === true) agree += 1;
  }
  return needed === 'all' ? (able > 0 && agree === able ? 'agreed' : 'waiting') : agree >= needed ? 'agreed' : 'waiting';
}

test('it is as the judge says, and nothing is agreed that nobody who may agreed to', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 3 }), fc.uniqueArray(person), people, fc.array(answer, { maxLength: 12 }), rule, (version, authors, some, answers, by) => {
      const standing = standingOf({ version, authors }, some, answers, by);
      expect(standing).toBe(judged(version, authors, some, answers, by));
      if (standing === 'agreed') expect(mayAgree({ version, authors }, some, by).some((a) => answerOf(answers, a.person, version)?.agrees === true)).toBe(true);
      // What is said of other versions changes nothing.
      expect(standingOf({ version, authors }, some, answers.filter((a) => a.version === version), by)).toBe(standing);
    }),
  );
});
