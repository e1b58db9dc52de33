import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { attachmentId } from '../attachments/index.ts';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { EMPTY_SHARED, countExpanded, type Used } from '../shared/index.ts';
import { divide } from './dividing.ts';
import { doubtsOfContent } from './doubts.ts';
import { executedInstances, type HandedOff } from './executed.ts';
import { HAND_OFF_COLUMNS, handOffMarkdown, handOffRows, type HandOffHead } from './handOffFile.ts';
import { configurationNames, handOffNumber, lineKey, personalShares, type HandOffLine } from './handOff.ts';
import { handOffJson } from './handOffJson.ts';

const LINE: HandOffLine = { of: 'C-1', version: 1, title: '', module: '', owner: '', execution: 'byHand', configuration: null, instances: 1, minutes: 1, person: '' };
const HEAD: HandOffHead = { project: { key: 'fc', name: 'Fonte Clara' }, number: handOffNumber(2), name: 'Round 6', note: '', due: '2031-05-01', by: 'Inês V.', at: '2031-04-24T08:00:00.000Z', baseline: 'B-3', person: null };
const reading = { id: parameterId('p'), name: 'reading', type: 'text' as const, default: '', description: '' };
const rowOf = (id: string, name: string, value: string) => ({ ...newRow(rowId(id), name), cells: { p: value } });
const CASE: CaseContent = { ...EMPTY_CASE, title: 'Enter <reading>', preconditions: 'at <page>', parameters: [reading], rows: [rowOf('a', 'lowest', '0'), rowOf('b', 'highest', '99999'), rowOf('c', 'highest', '7'), rowOf('d', '', '8')], steps: [plainStep(stepId('s'), 'type <reading>', 'it is <reading>'), { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] }], estimate: 3 };
const SIGN_IN: Used = { kind: 'shared', id: 'S-1', version: 4, withdrawn: false, content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), 'sign out of <page>')] } };
const CONSTANTS = [{ id: 'k', name: 'page', value: 'the usual page', others: { web: 'the page on the web' }, description: '', secret: false }];
const handed = (content: CaseContent, library: readonly Used[] = [SIGN_IN]): HandedOff => ({ contents: new Map([['C-1', content]]), library: new Map(library.map((used) => [used.id, used])), constants: CONSTANTS, configurations: [{ id: 'web', name: 'Web', factors: [] }] });
const linesOf = (content: CaseContent, configurations: readonly (string | null)[] = [null]): HandOffLine[] => configurations.map((configuration) => ({ ...LINE, configuration, title: content.title, person: 'Rui M.' }));

test('an instance has its values, its constants as they are in its configuration, and an identity of its own', () => {
  const instances = [...executedInstances(linesOf(CASE, [null, 'web']), handed(CASE))];
  expect(instances.map((i) => i.key)).toEqual(['C-1·lowest', 'C-1·highest', 'C-1·highest·3', 'C-1·4', 'C-1·lowest@Web', 'C-1·highest@Web', 'C-1·highest·3@Web', 'C-1·4@Web']);
  expect(instances[5]).toMatchObject({
    title: 'Enter 99999', name: 'highest', configuration: 'Web', person: 'Rui M.', before: [{ word: 'Preconditions', text: 'at the page on the web' }], values: [{ name: 'reading', value: '99999' }],
    steps: [{ number: 1, through: '', action: 'type 99999', expected: 'it is 99999' }, { number: 2, through: 'S-1 Sign out', action: 'sign out of the page on the web' }],
  });
  expect(instances[0]?.steps[1]?.action).toBe('sign out of the usual page');
});

test('whatever rows are called, every instance is there once, and no two are called alike', () => {
  const name = fc.oneof(fc.constantFrom('', 'a', 'a·2', 'a·3', '2', '3', 'a·', '@Web'), fc.string({ maxLength: 4 }));
  fc.assert(
    fc.property(fc.array(name, { maxLength: 12 }), (names) => {
      const content = { ...CASE, rows: names.map((n, i) => rowOf(`r${i}`, n, String(i))) };
      const instances = [...executedInstances(linesOf(content, [null, 'web']), handed(content))];
      expect(BigInt(instances.length)).toBe(2n * countExpanded(content, handed(content).library).instances);
      expect(new Set(instances.map((i) => i.key)).size).toBe(instances.length);
    }),
  );
});

test('what is doubtful is said: no value, something gone, nothing to do, nothing expected, vague words, no minutes', () => {
  const kinds = (content: CaseContent, library: readonly Used[] = [SIGN_IN]) => doubtsOfContent(content, handed(content, library).library, [new Map([['page', 'p']])]);
  expect(kinds(CASE)).toEqual({ instances: 4, doubts: [] });
  expect(kinds({ ...CASE, rows: [rowOf('a', '', ''), rowOf('b', '', '1')], steps: [plainStep(stepId('s'), 'type <reading> and <nobody>', 'ok')] }).doubts).toEqual([{ kind: 'unbound', names: ['reading', 'nobody'] }]);
  expect(kinds(CASE, []).doubts).toEqual([{ kind: 'gone', ids: ['S-1'] }]);
  expect(kinds({ ...CASE, steps: [] }).doubts).toEqual([{ kind: 'nothingToDo' }]);
  expect(kinds({ ...EMPTY_CASE, kind: 'charter', objective: 'look around', estimate: 20 }).doubts).toEqual([]);
  expect(kinds({ ...EMPTY_CASE, kind: 'charter', objective: 'look around', areas: 'the <hall>', ideas: '<odd> ones', estimate: 20 }).doubts).toEqual([{ kind: 'unbound', names: ['hall', 'odd'] }]);
  expect(kinds({ ...EMPTY_CASE, steps: [plainStep(stepId('s'), 'wait for some time')] })).toMatchObject({ instances: 1, doubts: [{ kind: 'nothingExpected' }, { kind: 'unclear', words: ['some'] }, { kind: 'noMinutes' }] });
  expect(kinds({ ...CASE, runs: { kind: 'chosen', rows: [] } })).toEqual({ instances: 0, doubts: [{ kind: 'noInstances' }] });
  const wide = { ...EMPTY_CASE, steps: Array.from({ length: 6 }, (_, i) => ({ kind: 'call' as const, id: stepId(`c${i}`), case: 'C-2' as const, pinned: null, rows: { kind: 'every' as const }, arguments: [] })) };
  expect(kinds(wide, [{ kind: 'case', id: 'C-2', version: 1, withdrawn: false, content: { ...EMPTY_CASE, rows: Array.from({ length: 50 }, (_, i) => rowOf(`r${i}`, '', '')) } }])).toEqual({ instances: 0, doubts: [{ kind: 'tooLarge' }] });
});

const lineArbitrary = fc.record({ module: fc.constantFrom('', 'Bills', 'Meters', 'Offices'), owner: fc.constantFrom('', 'a', 'b', 'z'), execution: fc.constantFrom('byHand' as const, 'automated' as const), instances: fc.nat(9), minutes: fc.option(fc.nat(60)) });
const PEOPLE = ['a', 'b', 'c'];

test('work is divided so that nobody has more than the mean and one unit of it; modules stay whole, owners keep theirs, what was chosen stays, and what is automated is nobody’s', () => {
  fc.assert(
    fc.property(fc.array(lineArbitrary, { maxLength: 30 }), fc.integer({ min: 0, max: 3 }), fc.constantFrom('evenly' as const, 'modules' as const, 'owners' as const), fc.boolean(), (some, count, way, byHand) => {
      const people = PEOPLE.slice(0, count);
      const lines = some.map((line, i) => ({ ...LINE, ...line, of: `C-${i + 1}` as const }));
      const chosen = new Map(byHand && lines[0] !== undefined ? [[lineKey(lines[0]), 'somebody else']] : []);
      const given = divide(lines, people, way, chosen);
      const known = lines.flatMap((l) => (l.minutes === null ? [] : [l.minutes]));
      const usual = known.length === 0 ? 1 : known.reduce((a, b) => a + b, 0) / known.length;
      const loads = new Map(people.map((p) => [p, 0]));
      const units = new Map<string, number>();
      lines.forEach((line, i) => {
        const work = line.instances * (line.minutes ?? usual);
        if (chosen.has(lineKey(line))) return expect(given[i]).toBe('somebody else');
        if (line.execution === 'automated' || count === 0) return expect(given[i]).toBe('');
        expect(people).toContain(given[i]);
        if (way === 'owners' && people.includes(line.owner)) return expect(given[i]).toBe(line.owner);
        const unit = way === 'modules' ? line.module : String(i);
        units.set(unit, (units.get(unit) ?? 0) + work);
        loads.set(given[i] ?? '', (loads.get(given[i] ?? '') ?? 0) + work);
        if (way === 'modules') lines.forEach((other, j) => other.module === line.module && other.execution === 'byHand' && !chosen.has(lineKey(other)) && expect(given[j]).toBe(given[i]));
        return undefined;
      });
      const total = [...loads.values()].reduce((a, b) => a + b, 0);
      if (way !== 'owners') expect(Math.max(0, ...loads.values())).toBeLessThanOrEqual(total / Math.max(1, count) + Math.max(0, ...units.values()) + 1e-9);
    }),
  );
});

test('whoever has most has at most a third more than in the best division there is', () => {
  const best = (work: readonly number[], people: number): number => {
    let least = Infinity;
    const loads = Array.from({ length: people }, () => 0);
    const give = (at: number): void => {
      const next = work[at];
      if (next === undefined) least = Math.min(least, Math.max(...loads));
      else for (const p of loads.keys()) {
        loads[p] = (loads[p] ?? 0) + next;
        give(at + 1);
        loads[p] = (loads[p] ?? 0) - next;
      }
    };
    give(0);
    return least;
  };
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 7 }), fc.integer({ min: 1, max: 3 }), (minutes, count) => {
      const people = PEOPLE.slice(0, count);
      const given = divide(minutes.map((m, i) => ({ ...LINE, of: `C-${i + 1}` as const, minutes: m })), people, 'evenly', new Map());
      const most = Math.max(...people.map((person) => minutes.reduce((sum, m, i) => sum + (given[i] === person ? m : 0), 0)));
      const least = best(minutes, count);
      expect(most).toBeGreaterThanOrEqual(least);
      // Graham 1969: 4/3 - 1/(3m) times the best.
      expect(3 * count * most).toBeLessThanOrEqual((4 * count - 1) * least);
    }),
  );
});

test('what people have to do is added up; what nobody does comes last', () => {
  const line = (person: string, minutes: number | null, execution: HandOffLine['execution'] = 'byHand') => ({ ...LINE, person, minutes, execution, instances: 2 });
  expect(personalShares([line('', 1), line('b', 5), line('a', null), line('b', 1), line('', 9, 'automated')])).toEqual([
    { person: 'b', lines: 2, instances: 4, minutes: 12, withoutMinutes: 0 },
    { person: 'a', lines: 1, instances: 2, minutes: 0, withoutMinutes: 1 },
    { person: '', lines: 1, instances: 2, minutes: 2, withoutMinutes: 0 },
  ]);
  expect([...configurationNames([{ id: 'x', name: 'Web' }, { id: 'y', name: 'Web' }, { id: 'z', name: 'Office' }]).values()]).toEqual(['Web (x)', 'Web (y)', 'Office']);
});

test('in a table every row says of which step of which instance it is; the last columns are for whoever executes it', () => {
  const picture = { id: attachmentId('0'.repeat(64)), name: 'dial.png', type: null, size: null };
  const content = { ...CASE, rows: CASE.rows.slice(0, 2), attachments: [picture] };
  const [head, ...rows] = [...handOffRows('fc H-2', executedInstances(linesOf(content), handed(content)))];
  expect(head).toEqual([...HAND_OFF_COLUMNS]);
  expect(rows).toEqual([
    ['fc H-2', 'C-1·lowest', 'Enter 0', '', 'Rui M.', '1', 'Preconditions: at the usual page', '1', 'type 0', 'it is 0', 'dial.png', '', '', ''],
    ['fc H-2', 'C-1·lowest', '', '', '', '', '', '2', '[S-1 Sign out]\nsign out of the usual page', '', '', '', '', ''],
    ['fc H-2', 'C-1·highest', 'Enter 99999', '', 'Rui M.', '1', 'Preconditions: at the usual page', '1', 'type 99999', 'it is 99999', 'dial.png', '', '', ''],
    ['fc H-2', 'C-1·highest', '', '', '', '', '', '2', '[S-1 Sign out]\nsign out of the usual page', '', '', '', '', ''],
  ]);
  const charter = { ...EMPTY_CASE, kind: 'charter' as const, title: 'Look', objective: 'find what is odd' };
  expect([...handOffRows('fc H-2', executedInstances(linesOf(charter), handed(charter)))][1]?.slice(0, 10)).toEqual(['fc H-2', 'C-1', 'Look', '', 'Rui M.', '1', 'Mission: find what is odd', '', '', '']);
});

test('the documents hold each instance once, whatever is written in it', () => {
  const hostile = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('# heading', '```', '"],"x":["', '=> ', '1. one\n\n2. two', '</script>'));
  fc.assert(
    fc.property(hostile, hostile, (title, action) => {
      const content = { ...CASE, title, steps: [plainStep(stepId('s'), action, action)], preconditions: action };
      const all = () => executedInstances(linesOf(content), handed(content));
      const read = JSON.parse([...handOffJson({ ...HEAD, note: title }, all())].join('')) as { handOff: string; instances: unknown[] };
      expect(read).toMatchObject({ handOff: 'H-2', note: title });
      expect(read.instances).toEqual(JSON.parse(JSON.stringify([...all()])));
      const text = [...handOffMarkdown({ ...HEAD, note: action }, all())].join('');
      expect(text.split('\n').filter((line) => line.startsWith('#'))).toHaveLength(1 + read.instances.length);
    }),
  );
});
