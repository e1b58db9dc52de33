import fc from 'fast-check';
import { artefactId, scenarioId, type Pin } from '../../artefacts/index.ts';
import type { QuestionSubject } from '../../basis/index.ts';
import { newRow, parameterId, plainStep, rowId, stepId, type CaseContent, type RowChoice, type Step } from '../../cases/index.ts';
import { PLAIN_ITEM, itemKey } from '../../conditions/index.ts';
import { EMPTY_DATA_SET } from '../../dataSets/index.ts';
import { EMPTY_SHARED, type Used } from '../../shared/index.ts';
import type { DesignChange } from '../coverageIndex.ts';
import type { Design, DesignCase } from '../design.ts';
import { C, K, R, byReading, condition, question, ranges, requirement, testCase } from './testDesign.ts';

/** What a small design is made of that undergoes random changes, for tests of what is kept up to date. */
export const limit = { id: 'l', name: 'limit', value: '99999', secret: true, description: '', others: {} };
export const sharedUse = (at: number, pinned: Pin): Step => ({ kind: 'shared', id: stepId(`u${at}`), shared: 'S-1', pinned, arguments: [] });
export const calling = (at: number, n: number, how: string, given: Record<string, string> = {}): Step => ({ kind: 'call', id: stepId(`c${at}`), case: C(n), pinned: null, rows: how === 'own' ? { kind: 'own', row: rowId('r0') } : { kind: how === 'every' ? 'every' : 'mine' }, arguments: Object.entries(given).map(([id, value]) => ({ id, value })) });
export const sharedSteps = (steps: readonly Step[]): Used => ({ kind: 'shared', id: 'S-1', version: 1, withdrawn: false, content: { ...EMPTY_SHARED, steps } });

export const taking = (pinned: Pin): CaseContent['data'] => ({ set: 'D-1', pinned, columns: [{ id: parameterId('p'), column: parameterId('c') }] });
export const withData = (data: CaseContent['data'], runs: RowChoice) => (c: DesignCase): DesignCase => ({ ...c, content: { ...c.content, data, runs } });
export const dataSet = (values: readonly string[], aside: boolean): Used => ({
  kind: 'dataSet', id: 'D-1', version: 1, withdrawn: false,
  content: { ...EMPTY_DATA_SET, parameters: [{ id: parameterId('c'), name: 'c', type: 'text', default: '5', description: '' }], rows: values.map((value, i) => ({ ...newRow(rowId(`d${i}`), '', { c: value }), aside: aside && i === 0 })) },
});

/** Random changes of a small design; the union is what a project can undergo. */
export const change: fc.Arbitrary<DesignChange> = fc.oneof(
  fc.array(fc.record({ n: fc.integer({ min: 1, max: 4 }), meaningSince: fc.integer({ min: 1, max: 3 }), risk: fc.constantFrom('high' as const, 'low' as const), withdrawn: fc.boolean() }), { maxLength: 4 }).map(
    (list): DesignChange => ({
      kind: 'requirements',
      inOutlineOrder: [...new Map(list.map((r) => [r.n, r])).values()].map((r) => requirement(r.n, { meaningSince: r.meaningSince, risk: r.risk, state: r.withdrawn ? 'withdrawn' : 'draft' })),
    }),
  ),
  fc.record({ n: fc.integer({ min: 1, max: 3 }), of: fc.uniqueArray(fc.integer({ min: 1, max: 4 }), { maxLength: 2 }), plain: fc.boolean(), gone: fc.boolean(), meaningSince: fc.integer({ min: 1, max: 3 }), withdrawn: fc.boolean() }).map(
    (c): DesignChange => ({
      kind: 'condition',
      id: K(c.n),
      condition: c.gone ? null : condition(c.n, c.of, c.plain ? {} : { model: ranges, leftOut: [{ id: itemKey('reading:edge:0'), reason: '', by: '', at: '' }] }, { meaningSince: c.meaningSince, state: c.withdrawn ? 'withdrawn' : 'draft' }),
    }),
  ),
  fc.record({ n: fc.integer({ min: 1, max: 3 }), covers: fc.uniqueArray(fc.integer({ min: 1, max: 3 }), { maxLength: 3 }), values: fc.array(fc.constantFrom('0', '-1', '12a', '""', '5', '', '<limit>'), { maxLength: 4 }), data: fc.constantFrom<CaseContent['data']>(null, taking(null), taking(1), taking('agreed')), runs: fc.constantFrom<RowChoice>({ kind: 'all' }, { kind: 'chosen', rows: [rowId('r0'), rowId('d0')] }, { kind: 'filter', filters: [{ id: parameterId('p'), text: '!=5' }] }), gone: fc.boolean(), seen: fc.integer({ min: 1, max: 3 }), state: fc.constantFrom('draft' as const, 'withdrawn' as const), uses: fc.array(fc.constantFrom('every', 'mine', 'own', 'shared', 'pinned', 'agreed'), { maxLength: 2 }) }).map(
    (c): DesignChange => ({
      kind: 'case',
      id: C(c.n),
      case: c.gone ? null : withData(c.data, c.runs)(testCase(c.n, c.values, c.covers.map((k) => ({ ...byReading, id: K(k), seenVersion: c.seen, expects: [stepId('s1')] })), { state: c.state }, c.n === 3 ? [] : c.uses.map((how, i) => (how === 'shared' || how === 'pinned' || how === 'agreed' ? sharedUse(i, how === 'pinned' ? 1 : how === 'agreed' ? how : null) : calling(i, c.n + 1, how))))),
    }),
  ),
  fc.record({ n: fc.integer({ min: 1, max: 2 }), scenarios: fc.uniqueArray(fc.record({ n: fc.integer({ min: 1, max: 3 }), values: fc.array(fc.constantFrom('0', '12a', '""'), { maxLength: 3 }), covers: fc.integer({ min: 1, max: 3 }) }), { selector: (s) => s.n, maxLength: 3 }), state: fc.constantFrom('draft' as const, 'withdrawn' as const) }).map(
    ({ n, scenarios, state }): DesignChange => ({ kind: 'feature', id: artefactId('feature', n), scenarios: scenarios.map((s) => ({ ...testCase(1, s.values, [{ ...byReading, id: K(s.covers) }], { state }), id: scenarioId(artefactId('feature', n), s.n) })) }),
  ),
  fc.record({ n: fc.integer({ min: 1, max: 2 }), at: fc.integer({ min: 1, max: 3 }), on: fc.constantFrom('requirement', 'condition', 'items'), open: fc.boolean(), gone: fc.boolean() }).map((c): DesignChange => {
    const about: QuestionSubject = c.on === 'requirement' ? { kind: 'requirement', id: R(c.at), words: '', holds: true } : { kind: 'condition', id: K(c.at), items: c.on === 'items' ? ['reading:edge:0', PLAIN_ITEM] : [], holds: true };
    return { kind: 'question', id: artefactId('question', c.n), question: c.gone ? null : question(c.n, [about], c.open ? 'open' : 'answered') };
  }),
  fc.record({ key: fc.constantFrom('S-1', 'S-1@1', 'S-1@agreed'), steps: fc.constantFrom<readonly Step[] | null>(null, [], [calling(0, 3, 'every')], [plainStep(stepId('s9'), '', 'it speaks')]) }).map(
    ({ key, steps }): DesignChange => (steps === null ? { kind: 'library', entries: [], gone: [key] } : { kind: 'library', entries: [{ key, used: sharedSteps(steps) }], gone: [] }),
  ),
  fc.record({ key: fc.constantFrom('D-1', 'D-1@1', 'D-1@agreed'), values: fc.option(fc.array(fc.constantFrom('0', '100000', '5', '<limit>'), { maxLength: 3 })), aside: fc.boolean() }).map(
    ({ key, values, aside }): DesignChange => (values === null ? { kind: 'library', entries: [], gone: [key] } : { kind: 'library', entries: [{ key, used: dataSet(values, aside) }], gone: [] }),
  ),
  fc.tuple(fc.constantFrom(1, 4), fc.constantFrom(9, 20_000)).map(([high, mostItems]): DesignChange => ({ kind: 'settings', settings: { riskWeights: { high, medium: 2, low: 1 }, mostItems, constants: mostItems === 9 ? [limit] : [] } })),
);

/** The design after a change, made plainly. */
export function after(design: Design, c: DesignChange): Design {
  const replace = <E extends { readonly id: string }>(list: readonly E[], id: string, element: E | null): E[] => [...list.filter((e) => e.id !== id), ...(element === null ? [] : [element])];
  switch (c.kind) {
    case 'requirements':
      return { ...design, requirements: c.inOutlineOrder };
    case 'condition':
      return { ...design, conditions: replace(design.conditions, c.id, c.condition) };
    case 'case':
      return { ...design, cases: replace(design.cases, c.id, c.case) };
    case 'feature':
      return { ...design, cases: [...design.cases.filter((x) => !x.id.startsWith(`${c.id}/`)), ...c.scenarios] };
    case 'question':
      return { ...design, questions: replace(design.questions, c.id, c.question) };
    case 'settings':
      return { ...design, ...c.settings };
    case 'library': {
      const kept = design.library.filter((e) => !c.gone.includes(e.key) && !c.entries.some((n) => n.key === e.key));
      return { ...design, library: [...kept, ...c.entries] };
    }
  }
}
