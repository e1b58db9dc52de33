/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { itemKey, type ItemKey } from '@caderno/core/conditions';
import type { ItemCoverage } from '@caderno/core/coverage';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { ItemList } from './ItemList.tsx';

afterEach(cleanup);

const item = (number: number, name: string, part: Partial<ItemCoverage> = {}): ItemCoverage =>
  ({ item: { key: itemKey(`f:edge:${number}/12`), number, kind: 'boundary', field: null, name, extent: String(number), sample: null, valid: true, outcome: '' }, standing: 'gap', shownBy: [], instances: 0, leftOut: null, ...part }) as never;
const lines = () => within(screen.getByRole('list', { name: 'Coverage items' })).getAllByRole('listitem');

test('of each item one may say something, at a place that is its own whatever its key holds', () => {
  const said: ItemKey[] = [];
  standInProject([], []);
  onThePage(<ItemList condition="K-1" coverage={{ items: [item(1, 'lowest'), item(2, 'highest', { standing: 'shown' })], evidence: [] } as never} onWhy={() => undefined} onRemark={(key) => said.push(key)} />);
  expect(lines().map((line) => line.getAttribute('data-place'))).toEqual(['items/f%3Aedge%3A1%2F12', 'items/f%3Aedge%3A2%2F12']);
  fireEvent.click(screen.getByRole('button', { name: 'Remark on highest' }));
  expect(said).toEqual(['f:edge:2/12']);
});

test('what is missing is written, asked about and left out with a reason; readers are offered none of it', () => {
  const done: string[] = [];
  standInProject([], []);
  const coverage = { items: [item(1, 'lowest'), item(2, 'highest', { standing: 'leftOut', leftOut: { id: itemKey('f:edge:2/12'), reason: 'by agreement', by: 'Rui M.', at: '2027-01-05T09:00:00Z' } })], evidence: [] } as never;
  const actions = { onAdd: (key: ItemKey) => done.push(`add ${key}`), onAsk: (key: ItemKey) => done.push(`ask ${key}`), onLeaveOut: (key: ItemKey, reason: string) => done.push(`${key} ${reason}`), onTakeBack: (key: ItemKey) => done.push(`back ${key}`) };
  onThePage(<ItemList condition="K-1" coverage={coverage} onWhy={() => undefined} {...actions} />);
  const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
  press('write a case');
  press('ask');
  press('take back');
  press('leave out');
  fireEvent.change(screen.getByRole('textbox', { name: 'Reason for leaving out lowest' }), { target: { value: 'too rare' } });
  press('leave out');
  expect(done).toEqual(['add f:edge:1/12', 'ask f:edge:1/12', 'back f:edge:2/12', 'f:edge:1/12 too rare']);
  cleanup();
  onThePage(<ItemList condition="K-1" coverage={coverage} onWhy={() => undefined} />);
  expect(screen.getAllByRole('button').map((button) => button.textContent)).toEqual(['why', 'why']);
});
