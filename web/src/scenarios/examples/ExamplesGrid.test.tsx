/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import { newRow, parameterId, rowId } from '@caderno/core/cases';
import type { DataSetSummary } from '@caderno/contract';
import { EMPTY_FEATURE, textOf, withNumbers, withText, type FeatureContent } from '@caderno/core/scenarios';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { onThePage } from '../../../test/onThePage.tsx';
import { standInProject } from '../../../test/standInProject.ts';
import { ExamplesGrid } from './ExamplesGrid.tsx';

afterEach(cleanup);

let made = 0;
const TEXT = 'Feature: f\n  Scenario Outline: o\n    When <reading> is given\n    Then <says>\n\n    Examples:\n      # why\n      | reading | says |\n      | 0       | ok   |\n      | 1       | ok   |\n';
const NOTHING = { caseOf: () => null, conditions: new Map(), coverages: new Map(), mostItems: 1_000 } as const;
const SET: DataSetSummary = { kind: 'dataSet', id: 'D-3', title: 'Edges', state: 'agreed', version: 5, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, tags: [], rows: 1, parameters: ['reading'], serves: [] };

let content: FeatureContent;
const keep = (now: FeatureContent): FeatureContent => (content = now);

function Page({ first, canEdit }: { readonly first: FeatureContent; readonly canEdit: boolean }) {
  const [now, setNow] = useState(() => keep(first));
  const part = now.parts.find((p) => p.number === 1)?.id;
  return part === undefined ? null : <ExamplesGrid content={now} part={part} at={0} covered={NOTHING} canEdit={canEdit} update={(change) => setNow((before) => keep(change(before)))} />;
}
function open(text: string, canEdit = true): void {
  const first = withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`), null);
  const set = { ...EMPTY_DATA_SET, title: 'Edges', parameters: [{ id: parameterId('p'), name: 'reading', type: 'whole' as const, default: '', description: '' }], rows: [newRow(rowId('r'), 'top', { p: '99999' })] };
  standInProject([SET], [], { readArtefact: () => ({ kind: 'dataSet', summary: SET, content: set, draft: null }) });
  onThePage(<Page first={first} canEdit={canEdit} />);
}
const grid = () => screen.getByRole('grid', { name: 'Examples 1' });
const cells = () => within(grid()).getAllByRole('row').slice(1).map((row) => within(row).getAllByRole('gridcell').map((c) => c.textContent));
const type = async (row: number, column: number, text: string): Promise<void> => {
  const cell = grid().querySelector(`[data-cell="${row}/${column}"]`);
  if (cell === null) throw new Error('There is such a cell');
  fireEvent.mouseDown(cell);
  fireEvent.doubleClick(cell);
  fireEvent.input(await within(grid()).findByRole('textbox'), { target: { value: text } });
  fireEvent.keyDown(within(grid()).getByRole('textbox'), { key: 'Enter' });
};

test('what is typed into the grid stands in the text, in line with the rest, and comments stay', async () => {
  open(TEXT);
  await waitFor(() => expect(cells().flat().filter((t) => t === 'ok')).toHaveLength(2));
  await type(1, 1, '99999');
  await waitFor(() => expect(textOf(content)).toBe(TEXT.replace('| reading | says |\n      | 0       | ok   |\n      | 1       | ok   |', '| reading | says |\n      |       0 | ok   |\n      |   99999 | ok   |')));
  await type(2, 2, 'a|b');
  await waitFor(() => expect(textOf(content)).toContain('|         | a\\|b |\n'));
  await type(0, 0, 'zero');
  await waitFor(() => expect(textOf(content)).toContain('      # why\n      | case | reading | says |\n      | zero | 0       | ok   |\n'));
});

test('the rows of a data set take their place, a comment says so, and a later version is taken again', async () => {
  open(TEXT.replace('# why', '# Rows of D-3 v2'));
  await screen.findByText(/which has changed since/);
  fireEvent.click(screen.getByRole('button', { name: 'take them again' }));
  await waitFor(() => expect(textOf(content)).toContain('      # Rows of D-3 v5\n      | case | reading | says |\n      | top  |   99999 |      |\n'));
  expect(screen.queryByText(/which has changed since/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Rows of a data set' }));
  const box = await screen.findByRole('combobox', { name: 'The data set' });
  fireEvent.change(box, { target: { value: 'Edges' } });
  await screen.findByRole('option', { name: /D-3 Edges/ });
  fireEvent.keyDown(box, { key: 'ArrowDown' });
  await act(async () => fireEvent.keyDown(box, { key: 'Enter' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(textOf(content).match(/Rows of D-3 v5/g)).toHaveLength(1);
});

test('who may not change anything sees the rows and no way to change them', async () => {
  open(TEXT, false);
  await waitFor(() => expect(cells().flat()).toContain('ok'));
  expect(screen.queryByRole('button', { name: 'Generate rows' })).toBeNull();
});
