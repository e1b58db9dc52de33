import { describe, expect, test } from '@jest/globals';
import { NO_ITEMS } from '../coverage/index.ts';
import { testField } from '../fields/testField/index.ts';
import { matchesQuery, parseQuery, wordsToFind, type Asking, type Findable, type FoundByWords } from './index.ts';

const head = { version: 2, author: 'Rui M.', at: '2026-11-26T10:00:00Z', broken: false, own: {} };
const reading: Findable = {
  ...head, kind: 'case', id: 'C-3', state: 'inReview', modules: ['Meter readings'], owner: 'Inês V.', tags: ['Smoke', 'roll over'], priority: 'high',
  caseKind: 'charter', execution: 'byHand', steps: 2, rows: 0, expected: 1, estimate: 2.5, dataSet: null, covers: ['K-7', 'K-12'], requirements: ['R-1'], shows: true, agreed: 1, meaningSince: 2,
};
const heading: Findable = { ...head, kind: 'requirement', id: 'R-1', state: 'withdrawn', modules: [''], priority: 'low', risk: 'low', type: 'apiOperation' };
const question: Findable = { ...head, kind: 'question', id: 'Q-2', state: 'draft', modules: [''], owner: 'Olga S.', status: 'open', about: ['R-1', 'K-7'] };
const condition: Findable = {
  ...head, kind: 'condition', id: 'K-7', state: 'withdrawn', modules: ['Bills', 'Tariffs'], risk: 'high', technique: 'decisionTable', polarity: 'both', depths: ['Smoke run'],
  requirements: ['R-1'], standings: { ...NO_ITEMS, shown: 1, gap: 2, leftOut: 5 },
};

const own = [testField('Runs on', 'choices', { choices: ['Kiosk', 'Phone'] }), testField('Cost', 'number'), testField('Due', 'date'), testField('Team', 'text'), testField('Notes', 'longText')];

const asking: Asking = { name: 'Inês V.', now: Date.parse('2026-11-28T10:00:00Z') };
const nothingFound: FoundByWords = () => new Set();
const matches = (query: string, artefact: Findable, found = nothingFound): boolean => matchesQuery(parseQuery(query, own), artefact, found, asking);

describe('fields', () => {
  test.each([
    'state:inreview', 'state:"in review"', 'state:any', 'module:METER', 'owner:inês', 'tag:smoke', 'tag:"roll over"', 'priority:HIGH', 'kind:charter', 'execution:"by hand"',
    'has:steps', 'has:expected', 'has:covers', 'has:tags', 'has:estimate', 'has:owner', 'has:module', 'has:requirement', 'covers:k-7', 'requirement:r-1', 'id:c-3', '-has:rows', '-state:draft', '-tag:roll',
    'module:read -owner:rui has:covers', 'author:rui', 'is:mine', 'is:showing', 'is:newer', 'has:agreed', '-is:broken', 'minutes>2', 'minutes=2,5', '-minutes<2.5', 'steps>=2', 'rows:0', 'version<3', 'updated<3d', '-updated<1d', 'updated:2026-11-26',
    'priority:low or tag:smoke', '-(priority:low or tag:none)', '(owner:rui or owner:inês) kind:charter',
  ])('%s holds', (query) => expect(matches(query, reading)).toBe(true));

  test.each([
    'state:draft', 'module:readers', 'owner:rui', 'tag:smok', 'priority:low', 'risk:high', 'kind:procedure', 'execution:automated', 'has:rows', 'has:dataSet', 'covers:K-1', 'id:C-30', 'id:R-3', '-has:covers', 'module:meter state:agreed',
    'minutes>2.5', 'steps<2', 'coverage<100', 'updated>7d', 'updated:today', 'technique:plain', 'priority:low or owner:rui', '-(priority:high or tag:none)',
  ])('%s does not', (query) => expect(matches(query, reading)).toBe(false));

  test('of a condition: what it hangs on counts, and what coverage says of it', () => {
    for (const query of ['module:tariff', 'risk:high', 'technique:"decision table"', 'depth:"smoke run"', 'standing:gap', '-standing:suspect', 'coverage>33%', 'coverage<34']) expect([query, matches(`${query} state:any`, condition)]).toEqual([query, true]);
    expect([matches('coverage:33 state:any', condition), matches('coverage>=0', { ...condition, state: 'draft', standings: { ...NO_ITEMS, leftOut: 3 } })]).toEqual([false, false]);
  });

  test('a field that a kind does not have is absent: what asks for it fails, what asks that it be not holds', () => {
    for (const query of ['tag:smoke', 'has:steps', 'has:agreed', 'is:newer', 'covers:K-7', 'kind:charter', 'has:estimate', 'minutes>=0', 'coverage>=0']) expect([query, matches(query, question), matches(`-${query}`, question)]).toEqual([query, false, true]);
    expect([matches('status:open requirement:R-1', question), matches('type:"API operation"', heading)]).toEqual([true, true]);
  });

  test('what cannot be understood is left out, as the screen says', () => {
    expect([matches('colour:red', reading), matches('risk:urgent', reading), matches('(tag:smoke', reading)]).toEqual([true, true, true]);
  });

  test('nobody’s name makes nothing mine', () => expect(matchesQuery(parseQuery('is:mine', own), { ...reading, owner: '' }, nothingFound, { name: '', now: 0 })).toBe(false));
});

describe('withdrawn', () => {
  test('they are in no list unless the query speaks of states, wherever; requirements always', () => {
    expect(['', 'risk:high', 'state:any', 'state:withdrawn', '-state:draft', 'risk:low or (risk:high state:any)'].map((query) => matches(query, condition))).toEqual([false, false, true, true, true, true]);
    expect([matches('', heading), matches('state:draft', heading)]).toEqual([true, false]);
  });
});

describe('words', () => {
  const foundIn = (...ids: string[]): FoundByWords => ({ words }) => new Set(words === 'tap' ? ids : []) as ReadonlySet<'C-3'>;

  test('are looked for in the contents; each once, phrases whole, ids never', () => {
    expect(wordsToFind(parseQuery('tap ("roll over" or -tap) state:any C-3 k-7 water', own))).toEqual(['tap', 'roll over', 'water'].map((words) => ({ words, field: null })));
  });
  test('hold for what has them', () => {
    expect([matches('tap', reading, foundIn('C-3')), matches('tap', reading, foundIn('C-30')), matches('-tap', reading, foundIn('C-3')), matches('tap water', reading, foundIn('C-3')), matches('tap or water', reading, foundIn('C-3'))]).toEqual([true, false, false, false, true]);
  });
  test('that are not found yet hold for nothing, rather than for everything', () => expect(matches('tap', reading, () => null)).toBe(false));
  test('that are an id mean the artefact itself, and among others what links to it', () => {
    expect([matches('c-3', reading), matches('C-4', reading), matches('K-7', reading), matches('K-70', reading), matches('R-1', reading)]).toEqual([true, false, true, false, true]);
    expect([matches('R-1', question), matches('K-7', question), matches('R-1 state:any', condition), matches('R-2 state:any', condition)]).toEqual([true, true, true, false]);
  });
});

describe('fields of the project’s own', () => {
  const filled: Findable = { ...reading, own: { 'runs-on': ['kiosk', 'gone'], cost: '2.50', due: '2026-11-30', team: 'Field crew', notes: 'Begins …' } };
  const plain: Findable = { ...reading, own: { cost: 'dear', due: 'soon' } };
  test.each(['runs-on:KIOSK', 'runs-on:kiosk -runs-on:phone', 'has:runs-on', 'cost:2,5', 'cost>2 cost<=2.5', 'due>today', 'due:2026-11-30 -due<2026-11-30', 'team:crew'])('%s holds', (query) => expect([matches(query, filled), matches(query, reading)]).toEqual([true, false]));
  test('what does not fit its type is neither less nor more, and is there', () => {
    expect(['cost>0', 'cost<1', 'due>2000-01-01', 'has:cost', '-cost:1'].map((query) => matches(query, plain))).toEqual([false, false, false, true, true]);
  });
  test('a long text is looked for in the contents', () => {
    const found: FoundByWords = ({ words, field }) => (field === own[4]?.id && words === 'later on' ? new Set(['C-3']) : new Set());
    expect([wordsToFind(parseQuery('notes:"later on" tap', own)), matches('notes:"later on"', filled, found), matches('notes:begins', filled, found), matches('has:notes', filled)]).toEqual([[{ words: 'later on', field: own[4]?.id }, { words: 'tap', field: null }], true, false, true]);
  });
});
