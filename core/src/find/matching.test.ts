import { describe, expect, test } from '@jest/globals';
import { matchesQuery, parseQuery, wordsToFind, type Findable, type FoundByWords } from './index.ts';

const reading: Findable = {
  kind: 'case', id: 'C-3', state: 'inReview', module: 'Meter readings', owner: 'Inês V.', tags: ['Smoke', 'roll over'], priority: 'high',
  caseKind: 'charter', execution: 'byHand', steps: 2, rows: 0, expected: 1, estimate: 0, covers: ['K-7', 'K-12'],
};
const heading: Findable = { kind: 'requirement', id: 'R-1', state: 'withdrawn', module: '', priority: 'low', risk: 'low' };
const question: Findable = { kind: 'question', id: 'Q-2', state: 'draft', module: '', owner: 'Olga S.', about: ['R-1', 'K-7'] };
const condition: Findable = { kind: 'condition', id: 'K-7', state: 'withdrawn', module: '', risk: '', requirements: ['R-1'] };

const nothingFound: FoundByWords = () => new Set();
const matches = (query: string, artefact: Findable, found = nothingFound): boolean => matchesQuery(parseQuery(query), artefact, found);

describe('fields', () => {
  test.each([
    'state:inreview', 'state:"in review"', 'state:any', 'module:METER', 'owner:inês', 'tag:smoke', 'tag:"roll over"', 'priority:HIGH', 'kind:charter', 'execution:"by hand"',
    'has:steps', 'has:expected', 'has:covers', 'has:tags', 'covers:k-7', 'id:c-3', '-has:rows', '-state:draft', '-tag:roll', 'module:read -owner:rui has:covers',
    // No minutes are an estimate too.
    'has:estimate',
  ])('%s holds', (query) => expect(matches(query, reading)).toBe(true));

  test.each(['state:draft', 'module:readers', 'owner:rui', 'tag:smok', 'priority:low', 'risk:high', 'kind:procedure', 'execution:automated', 'has:rows', 'covers:K-1', 'id:C-30', 'id:R-3', '-has:covers', 'module:meter state:agreed'])('%s does not', (query) =>
    expect(matches(query, reading)).toBe(false));

  test('a field that a kind does not have is absent: what asks for it fails, what asks that it be not holds', () => {
    for (const query of ['tag:smoke', 'has:steps', 'covers:K-7', 'kind:charter', 'has:estimate']) expect([query, matches(query, question), matches(`-${query}`, question)]).toEqual([query, false, true]);
  });

  test('what cannot be understood is left out, as the screen says', () => {
    expect([matches('colour:red', reading), matches('priority:urgent', reading)]).toEqual([true, true]);
  });
});

describe('withdrawn', () => {
  test('they are in no list unless the query speaks of states; requirements always', () => {
    expect([matches('', condition), matches('risk:high', condition), matches('state:any', condition), matches('state:withdrawn', condition), matches('-state:draft', condition)]).toEqual([false, false, true, true, true]);
    expect([matches('', heading), matches('state:draft', heading)]).toEqual([true, false]);
  });
});

describe('words', () => {
  const foundIn = (...ids: string[]): FoundByWords => (words) => new Set(words === 'tap' ? ids : []) as ReadonlySet<'C-3'>;

  test('are looked for in the contents; each once, phrases whole, ids never', () => {
    expect(wordsToFind(parseQuery('tap "roll over" -tap state:any C-3 k-7 water'))).toEqual(['tap', 'roll over', 'water']);
  });
  test('hold for what has them', () => {
    expect([matches('tap', reading, foundIn('C-3')), matches('tap', reading, foundIn('C-30')), matches('-tap', reading, foundIn('C-3')), matches('tap water', reading, foundIn('C-3'))]).toEqual([true, false, false, false]);
  });
  test('that are not found yet hold for nothing, rather than for everything', () => expect(matches('tap', reading, () => null)).toBe(false));
  test('that are an id mean the artefact itself, and among others what links to it', () => {
    expect([matches('c-3', reading), matches('C-4', reading), matches('K-7', reading), matches('K-70', reading)]).toEqual([true, false, true, false]);
    expect([matches('R-1', question), matches('K-7', question), matches('R-1 state:any', condition), matches('R-2 state:any', condition)]).toEqual([true, true, true, false]);
  });
});
