/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import type { ListedHead } from '../api/index.ts';
import { useSelection } from '../look/index.ts';
import { ListEntry, type LineLook } from './ListEntry.tsx';

afterEach(cleanup);

function listed(n: number): ListedHead<'case'> {
  const head = caseHead(n, { title: `Case ${n}` });
  return { ...head, modules: [], requirements: [], shows: false, instances: 1, head };
}

/** What a chapter says of its cases, counting how often it is asked. */
function counting(word: string): { readonly look: LineLook<'case'>; readonly asked: string[] } {
  const asked: string[] = [];
  const look: LineLook<'case'> = {
    notes: ({ id }) => {
      asked.push(id);
      return [word];
    },
    below: ({ id }) => <em>below {id}</em>,
    wrap: ({ id }, line) => <section aria-label={`around ${id}`}>{line}</section>,
  };
  return { look, asked };
}

test('a line is drawn again for what is its own: when it is selected, and when its chapter has more to say; not when the list is made anew', () => {
  const [one, two] = [counting('first'), counting('then')];
  const known = [listed(1), listed(2)];
  function List() {
    const [heads, setHeads] = useState(known);
    const [look, setLook] = useState(one.look);
    const selection = useSelection(heads.map((head) => head.id));
    return (
      <>
        <button onClick={() => setHeads([listed(3), ...heads])}>More</button>
        <button onClick={() => setLook(two.look)}>Tell</button>
        <output>{selection.chosen.join(' ')}</output>
        {heads.map((head) => (
          <ListEntry key={head.id} listed={head} isCurrent={false} isActive isSelected={selection.has(head.id)} selecting={false} onSelect={selection.toggle} search="?query=x" look={look} />
        ))}
      </>
    );
  }
  onThePage(<List />);
  expect(one.asked).toEqual(['C-1', 'C-2']);
  fireEvent.click(screen.getByRole('button', { name: 'More' }));
  expect(one.asked).toEqual(['C-1', 'C-2', 'C-3']);
  // The boxes of lines that were not drawn again know the list as it is now: from the first to the last all are taken.
  fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-3' }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-2' }), { shiftKey: true });
  expect(screen.getByRole('status').textContent).toBe('C-3 C-1 C-2');
  expect(one.asked.slice(3).toSorted()).toEqual(['C-1', 'C-2', 'C-3']);
  fireEvent.click(screen.getByRole('button', { name: 'Tell' }));
  expect(two.asked).toEqual(['C-3', 'C-1', 'C-2']);
  expect([screen.getByRole('link', { name: /^C-2/ }).getAttribute('href'), screen.getByRole('region', { name: 'around C-2' }).textContent]).toEqual(['/p/cases/C-2?query=x', 'C-2Case 2thenbelow C-2']);
});
