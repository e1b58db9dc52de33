import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { asJson } from '../versions/index.ts';
import { textPlaces } from '../replacing/index.ts';
import { EMPTY_CASE, plainStep, stepId } from '../cases/index.ts';
import { EMPTY_SHARED } from '../shared/index.ts';
import { EMPTY_CONDITION, coverageItems, type ConditionContent } from '../conditions/index.ts';
import { WHOLE, byPlace, isTakenBack, mentionedIn, offeredOn, pathOfItem, placeNow, placeOn, saidAt, valueAt, withItems, withOffer } from './index.ts';

const step = (id: string, action: string, expected = '') => ({ id, kind: 'plain', action, expected });
const content = (...steps: ReturnType<typeof step>[]) => asJson({ title: 'Reading', objective: '', steps, rows: [{ id: 'r1', name: 'usual', cells: { p1: '5' } }] });
const three = content(step('s1', 'Open the form'), step('s2', 'Enter <value>, then enter it again', 'It is stored'), step('s3', 'Close'));

describe('the place of a remark', () => {
  it('is found by ids and names', () => {
    expect(['', 'title', 'steps/s2/expected', 'rows/r1/cells/p1'].map((path) => valueAt(three, path))).toEqual([three, 'Reading', 'It is stored', '5']);
    expect(['steps/s9', 'steps/s2/nothing', 'title/x', 'steps/0', 'rows/r1/cells/p2'].map((path) => valueAt(three, path))).toEqual([undefined, undefined, undefined, undefined, undefined]);
  });

  it('stays with its words, wherever the step goes and whatever is written around them', () => {
    const text = 'Enter <value>, then enter it again';
    const start = text.indexOf('enter it');
    const place = placeOn(three, 'steps/s2/action', { start, end: start + 8 });
    const now = content(step('s3', 'Close'), step('s2', 'Once: Enter <value>; then enter it again and again'), step('s1', 'enter it'));
    expect(placeNow(now, place)).toEqual({ kind: 'there', words: { start: 26, end: 34 } });
    expect(placeNow(content(step('s2', 'Enter <value>')), place)).toEqual({ kind: 'there', words: 'gone' });
    expect(placeNow(content(step('s1', text)), place)).toEqual({ kind: 'gone' });
    expect([saidAt(three, place), saidAt(three, placeOn(three, 'steps/s2', { start: 0, end: 3 })), saidAt(three, WHOLE), saidAt(three, { path: 'steps/s7', words: null })]).toEqual(['enter it', 'Enter <value>, then enter it again · It is stored', '', '']);
  });

  it('stays at a cell that is emptied, until its row or its column is taken out', () => {
    const place = { path: 'rows/r1/cells/p1', words: null };
    const table = (rows: object[], parameters: object[]) => asJson({ rows, parameters });
    const row = { id: 'r1', name: 'usual', cells: {} };
    expect([[[row], [{ id: 'p1' }]], [[row], [{ id: 'p2' }]], [[], [{ id: 'p1' }]]].map(([rows, parameters]) => placeNow(table(rows!, parameters!), place).kind)).toEqual(['there', 'gone', 'gone']);
  });

  it('remembers what stood there as a text that can be kept, however long it is', () => {
    const long = content(step('s1', `${'a'.repeat(299)}😀 and more`));
    expect(saidAt(long, { path: 'steps/s1/action', words: null })).toHaveLength(300);
    expect(saidAt(long, { path: 'steps/s1/action', words: null }).isWellFormed()).toBe(true);
  });

  it('takes no words where none are, and all where too many are meant', () => {
    for (const chosen of [null, { start: 2, end: 2 }, { start: 0, end: 99 }]) expect(placeOn(three, 'title', chosen)).toEqual({ path: 'title', words: null });
  });

  it('has an order: the whole, then as one reads, then what is gone', () => {
    const read = [WHOLE, ...['title', 'steps/s1', 'steps/s1/action', 'steps/s2', 'steps/s2/action', 'steps/s2/expected', 'steps/s3', 'rows/r1', 'steps/gone'].map((path) => ({ path, words: null }))];
    fc.assert(fc.property(fc.shuffledSubarray(read), (some) => {
      expect(some.toSorted(byPlace(three))).toEqual(read.filter((p) => some.includes(p)));
    }));
    const words = (start: number) => placeOn(three, 'steps/s2/action', { start, end: start + 2 });
    expect([words(9), words(0), { path: 'steps/s2/action', words: null }].toSorted(byPlace(three))).toEqual([{ path: 'steps/s2/action', words: null }, words(0), words(9)]);
  });
});

describe('what is said of a coverage item', () => {
  const ranges = (to: string, edge = 'i') => ({ ...EMPTY_CONDITION, title: 'Reading', model: { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [{ id: 'f/1', name: 'reading', type: { kind: 'whole' }, unit: '', required: true, intervals: [{ id: edge, valid: true, outcome: '', name: '', from: '0', to }], choices: [], patterns: [], classes: [] }] } }) as unknown as ConditionContent;

  it('stays with it while the model makes it, and is on something that is gone afterwards', () => {
    const before = ranges('99');
    const now = asJson(withItems(before));
    const keys = coverageItems(before).map((item) => item.key);
    expect(keys.length).toBeGreaterThan(4);
    for (const key of keys) {
      const place = { path: pathOfItem(key), words: null };
      expect([placeNow(now, place).kind, saidAt(now, place), offeredOn(now, place)]).toEqual(['there', coverageItems(before).find((item) => item.key === key)?.name.trim(), null]);
      const stays = coverageItems(ranges('120')).some((item) => item.key === key);
      expect(placeNow(asJson(withItems(ranges('120'))), place).kind).toBe(stays ? 'there' : 'gone');
    }
    expect(keys.filter((key) => placeNow(asJson(withItems(ranges('120'))), { path: pathOfItem(key), words: null }).kind === 'gone').length).toBe(2);
  });
});

describe('what is said', () => {
  const people = ['Rui M.', 'Rui', 'Inês V.', ''].map((name) => ({ name }));
  const named = (text: string) => mentionedIn(text, people).map((p) => p.name);

  it('names people with @, the longest name that fits', () => {
    expect(named('@Rui M. and @inês v.: look')).toEqual(['Rui M.', 'Inês V.']);
    expect(named('@Rui, @Rui: twice')).toEqual(['Rui']);
    expect(named('mail rui@Rui or @Ruio, x.@Rui, @ @@')).toEqual([]);
    expect(named('(@Rui)')).toEqual(['Rui']);
  });

  it('is gone when all of it was taken back', () => {
    const remark = (takenBackAt: string | null) => ({ takenBackAt }) as never;
    expect([isTakenBack({ remarks: [remark('t'), remark(null)] }), isTakenBack({ remarks: [remark('t'), remark('t')] })]).toEqual([false, true]);
  });
});

describe('a change that is offered', () => {
  const path = 'steps/s2/action';
  const text = 'Enter <value>, then enter it again';

  it('is put in place of the words, wherever the step was moved and whatever is written around them', () => {
    const place = placeOn(three, path, { start: text.indexOf('then'), end: text.indexOf('again') });
    const now = content(step('s2', 'Slowly: Enter <value>, then enter it again.', 'It is stored'), step('s1', 'Open the form'));
    expect([offeredOn(now, place), withOffer(now, place, 'and enter <other>, ')]).toEqual(['then enter it ', content(step('s2', 'Slowly: Enter <value>, and enter <other>, again.', 'It is stored'), step('s1', 'Open the form'))]);
    expect([offeredOn(three, { path: 'steps/s2/expected', words: null }), valueAt(withOffer(three, { path: 'objective', words: null }, 'To know') ?? null, 'objective')]).toEqual(['It is stored', 'To know']);
  });

  it('is for texts that people write, and for none that is gone', () => {
    const words = placeOn(three, path, { start: 0, end: 5 });
    for (const [now, place] of [[content(step('s1', text)), words], [content(step('s2', 'Type <value>')), words], [three, WHOLE], [three, { path: 'steps/s2', words: null }], [three, { path: 'steps/s2/kind', words: null }], [three, { path: 'rows/r1', words: null }], [asJson({ title: 'F', parts: [] }), { path: 'title', words: null }]] as const) {
      expect([offeredOn(now, place), withOffer(now, place, 'x')]).toEqual([null, null]);
    }
  });

  it('changes that text alone; its places are those in which words can be replaced', () => {
    const values = [
      { kind: 'case', content: { ...EMPTY_CASE, title: 'T', objective: 'o', preconditions: 'p', module: 'm', owner: 'Rui', steps: [plainStep(stepId('a'), 'go', 'seen'), { kind: 'call', id: 'u', case: 'C-2', rows: { kind: 'own' }, pinned: null, arguments: [{ id: 'n', value: 'v' }] }], parameters: [{ id: 'q', name: 'n', type: 'text', default: 'd', description: 'e' }], rows: [{ id: 'r', name: 'one', description: 'why', cells: { q: '5' }, mark: null, aside: false }] } },
      { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S', purpose: 'p', steps: [plainStep(stepId('a'), 'go', 'seen')] } },
    ] as never as Parameters<typeof textPlaces>[0][];
    for (const value of values) {
      const json = asJson(value.content);
      const offered = leaves(json, '').filter((at) => offeredOn(json, { path: at, words: null }) !== null && valueAt(json, at) !== '');
      expect(offered.toSorted()).toEqual(textPlaces(value).map((p) => p.path).toSorted());
      for (const at of offered) {
        const next = withOffer(json, { path: at, words: null }, 'otherwise') ?? null;
        expect([valueAt(next, at), withOffer(next, { path: at, words: null }, String(valueAt(json, at)))]).toEqual(['otherwise', json]);
      }
    }
  });
});

/** All paths to texts. */
function leaves(value: unknown, path: string): string[] {
  const at = (name: string): string => (path === '' ? name : `${path}/${name}`);
  if (typeof value === 'string') return [path];
  if (Array.isArray(value)) return value.flatMap((e: { id: string }) => leaves(e, at(e.id)));
  return typeof value === 'object' && value !== null ? Object.entries(value).flatMap(([name, inner]) => leaves(inner, at(name))) : [];
}
