import fc from 'fast-check';
import { artefactId, type CaseId, type SharedId } from '../artefacts/index.ts';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type Argument, type CaseContent, type Parameter, type PlainStep, type Row, type Step } from '../cases/index.ts';
import { EMPTY_SHARED, instancesOf, openCase, openedText, type Library, type SharedContent, type UsedSteps } from './index.ts';

/** Builders and random graphs of uses for tests. */

export const S = (n: number): SharedId => artefactId('shared', n);
export const C = (n: number): CaseId => artefactId('case', n);
export const parameter = (name: string, value = ''): Parameter => ({ id: parameterId(name), name, type: 'text', default: value, description: '' });
export const line = (id: string, action: string, expected = ''): PlainStep => plainStep(stepId(id), action, expected);
export const row = (name: string, cells: Record<string, string>): Row => newRow(rowId(name), name, cells);
export const args = (record: Record<string, string>): Argument[] => Object.entries(record).map(([id, value]) => ({ id, value }));
export const newUse = (id: string, n: number, given: Record<string, string> = {}): Step => ({ kind: 'shared', id: stepId(id), shared: S(n), pinned: null, arguments: args(given) });
export const callOf = (id: string, n: number, rows: Extract<Step, { kind: 'call' }>['rows'], given: Record<string, string> = {}): Step => ({ kind: 'call', id: stepId(id), case: C(n), pinned: null, rows, arguments: args(given) });

export function libraryOf(shared: Record<number, Partial<SharedContent>>, cases: Record<number, Partial<CaseContent>> = {}): ReadonlyMap<string, UsedSteps> {
  const used: UsedSteps[] = [
    ...Object.entries(shared).map(([n, part]): UsedSteps => ({ kind: 'shared', id: S(Number(n)), version: 1, withdrawn: false, content: { ...EMPTY_SHARED, ...part } })),
    ...Object.entries(cases).map(([n, part]): UsedSteps => ({ kind: 'case', id: C(Number(n)), version: 1, withdrawn: false, content: { ...EMPTY_CASE, ...part } })),
  ];
  return new Map(used.map((u) => [u.id, u]));
}

/** Every instance as the lines an executor would read. */
export function readOut(content: Partial<CaseContent>, library: Library, constants?: ReadonlyMap<string, string>): string[][] {
  const opened = openCase({ ...EMPTY_CASE, ...content }, library, constants);
  if (opened.kind !== 'opened') throw new Error(opened.kind);
  return Array.from(instancesOf(opened), () => opened.steps.map((s) => (s.kind === 'gone' ? 'gone' : [s.step.action, s.step.expected].map((t) => openedText(s.scope.open(t))).join(' => '))));
}

// Random graphs of uses: each uses only what has a higher number, so that there is no circle.
export const NAMES = ['a', 'b', 'c'];
export const text = fc.constantFrom('plain', '<a>', 'x <b>', '<c> and <a>', '\\<a>', '<undeclared>');
export const argument = fc.constantFrom('literal', '<a>', '<b> too', '<c>');
export const parameters = fc.subarray(NAMES).chain((names) => fc.tuple(...names.map((n) => fc.constantFrom('', `default ${n}`).map((d) => parameter(n, d)))));
export const someArguments = fc.dictionary(fc.constantFrom(...NAMES), argument, { maxKeys: 2 });
export const someRows = fc.array(fc.dictionary(fc.constantFrom(...NAMES), fc.constantFrom('1', '2', ''), { maxKeys: 3 }), { maxLength: 2 }).map((list) => list.map((cells, i) => row(`r${i}`, cells)));
export const LAST = 4;

export function someSteps(above: number): fc.Arbitrary<Step[]> {
  const plain = fc.tuple(text, text).map(([action, expected]) => line('', action, expected));
  const lower = above >= LAST ? plain : fc.oneof(plain, fc.tuple(fc.integer({ min: above + 1, max: LAST }), someArguments).map(([n, given]) => newUse('', n, given)), fc.tuple(fc.integer({ min: above + 1, max: LAST }), fc.constantFrom('own', 'every', 'mine'), someArguments).map(([n, kind, given]) => callOf('', n, kind === 'own' ? { kind, row: rowId('r0') } : { kind: kind === 'every' ? 'every' : 'mine' }, given)));
  return fc.array(lower, { maxLength: 3 }).map((steps) => steps.map((s, i) => ({ ...s, id: stepId(`${above}.${i}`) })));
}

export const graph = fc.tuple(...Array.from({ length: LAST }, (_, i) => fc.record({ steps: someSteps(i + 1), parameters })), ...Array.from({ length: LAST }, (_, i) => fc.record({ steps: someSteps(i + 1), parameters, rows: someRows }))).map((parts) => libraryOf(Object.fromEntries(parts.slice(0, LAST).map((p, i) => [i + 1, p])), Object.fromEntries(parts.slice(LAST).map((p, i) => [i + 1, p]))));
export const root = fc.record({ steps: someSteps(0), parameters, rows: someRows });

/** What has no value is said by a name, and which name may differ. */
export const anyName = (lines: string[][]): string[][] => lines.map((l) => l.map((t) => t.split(' => ').map((part) => (/[<\0]/.test(part) ? '?' : part)).join(' => ')));
