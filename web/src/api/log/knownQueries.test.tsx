/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { packHeads, type CaseSummary } from '@caderno/contract';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { caseHead } from '../../../test/heads.ts';
import { onThePage } from '../../../test/onThePage.tsx';
import { StandInServer } from '../../../test/standInServer.ts';
import { useSummaries } from './knownQueries.ts';

afterEach(cleanup);

function List() {
  const [query, setQuery] = useState('');
  const { data } = useSummaries('p', 'case', query);
  return (
    <>
      <input aria-label="Query" value={query} onChange={(e) => setQuery(e.target.value)} />
      {data === undefined ? <p>Reading</p> : data.map((c) => <button key={c.id}>{c.title}</button>)}
    </>
  );
}

test('while words are looked for the list before stands, so that whoever is on a line of it stays there', async () => {
  let answer = (_ids: string[]): void => undefined;
  const server = new StandInServer({
    readHeads: () => ({ revision: 1, heads: packHeads([caseHead(1, { title: 'Read' }), caseHead(2, { title: 'Send' })]), next: null, suspectLinks: 0 }),
    readChanges: () => ({ kind: 'changes', since: 1, revision: 1, heads: [], gone: [], touched: [], settings: false, suspectLinks: 0 }),
    readCoverageRows: () => ({ since: null, edition: 1, revision: 1, rows: [], gone: [] }),
    findByWords: () => new Promise((resolve) => (answer = (ids) => resolve({ ids: ids as CaseSummary['id'][] }))),
  });
  onThePage(<List />);
  const send = await screen.findByRole('button', { name: 'Send' });
  send.focus();
  fireEvent.change(screen.getByLabelText('Query'), { target: { value: 'night' } });
  await waitFor(() => expect(server.calls('findByWords')).toHaveLength(1));
  expect(screen.getAllByRole('button').map((b) => b.textContent)).toEqual(['Read', 'Send']);
  act(() => answer(['C-2']));
  await waitFor(() => expect(screen.getAllByRole('button').map((b) => b.textContent)).toEqual(['Send']));
  expect(document.activeElement).toBe(send);
  // The words before hold too, until those of now are found; a field needs nobody.
  fireEvent.change(screen.getByLabelText('Query'), { target: { value: 'nights' } });
  expect(screen.getAllByRole('button').map((b) => b.textContent)).toEqual(['Send']);
  fireEvent.change(screen.getByLabelText('Query'), { target: { value: 'priority:medium' } });
  expect(screen.getAllByRole('button')).toHaveLength(2);
});
