/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { newRow, parameterId, plainStep, rowId, stepId, type Parameter } from '@caderno/core/cases';
import type { CellText } from '@caderno/core/data';
import { EMPTY_CONDITION, coverageItems, type Model } from '@caderno/core/conditions';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import type { Specified } from '@caderno/core/specification';
import { cleanup, screen, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, standInProject } from '../../test/standInProject.ts';
import type { StateDrawing } from '../models/index.ts';
import { ConditionPart } from './ConditionPart.tsx';
import { RowsTable } from './RowsTable.tsx';
import { SpecificationFeature } from './SpecificationFeature.tsx';
import { StepsTable } from './StepsTable.tsx';
import { Told } from './Told.tsx';

afterEach(cleanup);

const condition = (model: Model, more: Partial<Specified<'condition'>['content']> = {}): Specified<'condition'> => ({ kind: 'condition', id: 'K-1', version: 1, state: 'draft', parent: null, position: 0, content: { ...EMPTY_CONDITION, title: 'A condition', model, ...more } });
const factor = (name: string, count: number) => ({ id: name, name, values: Array.from({ length: count }, (_, i) => ({ id: `${name}${i}`, value: `${name} ${i}`, aliases: [], valid: i > 0, base: false, outcome: '' })) });
const combination = (strength: string, ...factors: object[]): Model => ({ kind: 'combination', factors, constraints: [{ id: 'k', text: 'if a = a 1 then b = b 1' }], strength, groups: [], seed: 1 }) as unknown as Model;
const STATES = { kind: 'stateTransitions', level: 'switch0', invalidPairs: true, states: [{ id: 's', name: 'Open', initial: true, final: false, place: null }, { id: 't', name: 'Closed', initial: false, final: true, place: null }], events: [{ id: 'e', name: 'close' }], transitions: [{ id: 'x', from: 's', event: 'e', to: 't', guard: '', action: '' }] } as unknown as Model;

const show = (part: Specified<'condition'>, drawing?: StateDrawing): void => {
  standInProject([conditionHead(1)], []);
  onThePage(<ConditionPart condition={part} drawing={drawing} />, {});
};

test('states are drawn where they lie, with all transitions below, and what is to be shown', () => {
  show(condition(STATES), { width: 300, height: 60, states: [{ id: 's' as never, x: 10, y: 10, width: 80, height: 34 }, { id: 't' as never, x: 200, y: 10, width: 80, height: 34 }], lines: [{ id: 'x' as never, points: [{ x: 90, y: 27 }, { x: 200, y: 27 }], label: { x: 145, y: 20 } }] });
  const drawing = screen.getByRole('img', { name: 'State diagram of A condition' });
  expect([...drawing.querySelectorAll('text')].map((t) => t.textContent)).toEqual(['close', 'Open', 'Closed']);
  expect(screen.getByText('To show: all transitions (0-switch), and that other events are refused')).toBeTruthy();
  expect(screen.getByRole('table', { name: 'Transitions of A condition' })).toBeTruthy();
});

test('factors with their values, how they are combined, and constraints; of very many items they are counted and not made', () => {
  const few = condition(combination('pairs', factor('a', 3), factor('b', 3)));
  show(few);
  expect(within(screen.getByRole('table', { name: 'Factors' })).getAllByRole('row').map((r) => r.textContent)).toEqual(['aa 0 (invalid) · a 1 · a 2', 'bb 0 (invalid) · b 1 · b 2']);
  expect(screen.getByText('Combined: pairs')).toBeTruthy();
  expect(screen.getByText('if a = a 1 then b = b 1')).toBeTruthy();
  expect(screen.getByText(`${coverageItems(few.content).length} coverage items`)).toBeTruthy();
  cleanup();
  show(condition(combination('pairs', factor('a', 20), factor('b', 20))));
  expect(screen.getByText(/^and \d+ more$/)).toBeTruthy();
  cleanup();
  show(condition(combination('pairs', factor('a', 100), factor('b', 100))));
  expect(screen.getByText(/coverage items, which are too many to be listed\.$/)).toBeTruthy();
  expect(screen.queryByRole('listitem')).toBeNull();
});

test('what is left out says which item, and why', () => {
  const model = condition(STATES);
  const [item] = coverageItems(model.content);
  show(condition(STATES, { leftOut: [{ id: item!.key, reason: 'it needs the night', by: 'Rui M.', at: '2026-01-01T00:00:00.000Z' }] }));
  expect(screen.getByText(/^Left out:/).textContent).toBe(`Left out: ${item!.name}, because it needs the night`);
});

const parameter = (n: number): Parameter => ({ id: parameterId(`p${n}`), name: `column ${n}`, type: 'text', default: '' as CellText, description: '' });

test('rows of many columns stand in bands, each with the names of the rows; of very many the first are there and the rest is counted', () => {
  const parameters = Array.from({ length: 8 }, (_, n) => parameter(n));
  const rows = Array.from({ length: 203 }, (_, n) => ({ ...newRow(rowId(`r${n}`), `row ${n}`, { p0: `a${n}` as CellText, p7: `h${n}` as CellText }), aside: n === 1 }));
  onThePage(<RowsTable parameters={parameters} rows={rows} />, {});
  const bands = screen.getAllByRole('table', { name: 'Rows' });
  expect(bands.map((t) => within(t).getAllByRole('columnheader').map((h) => h.textContent))).toEqual([['row', ...[0, 1, 2, 3, 4, 5].map((n) => `column ${n}`)], ['row', 'column 6', 'column 7']]);
  expect(bands.map((t) => within(t).getAllByRole('row').length)).toEqual([201, 201]);
  expect(within(bands[1]!).getAllByRole('row')[3]?.textContent).toBe('row 2h2');
  expect(within(bands[0]!).getAllByRole('row')[2]?.className).toContain('line-through');
  expect(screen.getByText('and 3 more rows')).toBeTruthy();
});

test('calls say which rows they run and with what; pictures are named; what is not in the document stands by its id', () => {
  const titles = new Map<ArtefactId, string>([['C-2', 'Pay']]);
  onThePage(
    <Told value={titles}>
      <StepsTable
        steps={[
          { kind: 'call', id: stepId('a'), case: 'C-2', pinned: null, rows: { kind: 'every' }, arguments: [{ id: 'who', value: '<member>' as CellText }] },
          { kind: 'shared', id: stepId('b'), shared: 'S-9', pinned: 'agreed', arguments: [] },
          { ...plainStep(stepId('c'), 'look', ''), attachments: [{ id: 'f', name: 'dial.png', type: null, size: null }] as never },
        ]}
      />
    </Told>,
    {},
  );
  expect(screen.getAllByRole('row').slice(1).map((r) => r.textContent)).toEqual(['1→ C-2 Pay, every rowwho = <member>', '2→ S-9', '3look [dial.png]']);
  expect(screen.getByRole('link').getAttribute('href')).toBe('#spec-C-2');
});

test('a feature stands as its file reads, line by line', () => {
  let ids = 0;
  const text = 'Feature: Bills\n  As a member\n\n  @smoke\n  Scenario: One\n    Given a bill\n';
  const feature: Specified<'feature'> = { kind: 'feature', id: 'F-1', version: 2, state: 'agreed', parent: null, position: 0, content: withText({ ...EMPTY_FEATURE, path: 'a/bills.feature' }, text, () => `f${(ids += 1)}`) };
  const { container } = onThePage(<SpecificationFeature feature={feature} />, {});
  expect([...container.querySelectorAll('pre')].map((p) => p.textContent).join('\n')).toBe(text);
  expect(screen.getByText('version 2 · agreed · a/bills.feature')).toBeTruthy();
});
