/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { FIRST_PRIORITIES } from '@caderno/core/artefacts';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import type { ListedHead } from '../api/index.ts';
import { TableLine, type TableRules } from './TableLine.tsx';

afterEach(cleanup);

const NONE: readonly ListedHead[] = [];

/** A line that tells how often it was looked at to be drawn. */
function counted(n: number): { readonly listed: ListedHead; readonly drawn: () => number } {
  let times = 0;
  const head = caseHead(n, { title: `Case ${n}`, steps: 1_234 });
  const listed = { ...head, modules: [], requirements: [], shows: false, instances: 1, head };
  Object.defineProperty(listed, 'title', { get: () => ((times += 1), head.title), enumerable: true });
  return { listed, drawn: () => times };
}

test('a line is drawn again when something of its own changes, and stays as it is when another is selected', () => {
  const [first, second] = [counted(1), counted(2)];
  const selected: string[] = [];
  const focused: number[] = [];
  const table: TableRules = {
    project: 'p', kind: 'case', isEdited: false, search: '?query=x', rules: { fields: [], modules: [], priorities: FIRST_PRIORITIES },
    columns: [{ column: 'title', width: null }, { column: 'steps', width: null }], changeMany: () => Promise.resolve(null), onSelect: (id) => void selected.push(id), onFocus: (index) => void focused.push(index),
  };
  const look = { table, template: '1fr', width: 0, above: undefined, chosen: NONE, isActive: false };
  function Two() {
    const [isSelected, select] = useState(false);
    return (
      <>
        <button onClick={() => select(true)}>Select the first</button>
        <TableLine {...look} index={0} top={0} listed={first.listed} isSelected={isSelected} />
        <TableLine {...look} index={1} top={34} listed={second.listed} isSelected={false} />
      </>
    );
  }
  onThePage(<Two />);
  const before = [first.drawn(), second.drawn()];
  fireEvent.click(screen.getByRole('button', { name: 'Select the first' }));
  expect([first.drawn() > before[0]!, second.drawn()]).toEqual([true, before[1]]);
  expect([screen.getAllByText('1,234'), screen.getByRole('link', { name: /^Case 1/ }).getAttribute('href')]).toEqual([[expect.anything(), expect.anything()], '/p/cases/C-1?query=x']);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-2' }));
  screen.getByRole('link', { name: /^Case 2/ }).focus();
  expect([selected, focused.at(-1)]).toEqual([['C-2'], 1]);
});
