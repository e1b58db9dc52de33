/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { goOnInAdded } from './index.ts';

afterEach(cleanup);

/** Lines with a tick and a name each; another field stands behind them. */
function Lines({ first, most }: { readonly first: readonly string[]; readonly most: number }) {
  const [lines, setLines] = useState(first);
  return (
    <main>
      {lines.map((name, i) => (
        <p key={i}>
          <input type="checkbox" aria-label={`${name} counts`} />
          <input aria-label={`Line ${i + 1}`} value={name} onChange={(e) => setLines(lines.map((l, j) => (j === i ? e.target.value : l)))} />
        </p>
      ))}
      <button onClick={(e) => goOnInAdded(e.currentTarget, () => setLines((l) => (l.length < most ? [...l, 'new'] : l)))}>Add</button>
      <textarea aria-label="Note" />
    </main>
  );
}

const values = () => screen.getAllByLabelText<HTMLInputElement>(/^Line/).map((l) => l.value);

test('what is typed after something was added is its name; pressed again the next one is named', async () => {
  const user = userEvent.setup();
  render(<Lines first={['a', 'b']} most={4} />);
  screen.getByRole('button').focus();
  await user.keyboard('{Enter}meter 1');
  expect(values()).toEqual(['a', 'b', 'meter 1']);
  await user.click(screen.getByRole('button'));
  await user.keyboard('meter 2');
  expect(values()).toEqual(['a', 'b', 'meter 1', 'meter 2']);
});

test('where nothing could be added the focus stays', async () => {
  const user = userEvent.setup();
  render(<Lines first={['a']} most={1} />);
  await user.click(screen.getByRole('button'));
  await user.keyboard('x');
  expect([values(), document.activeElement]).toEqual([['a'], screen.getByRole('button')]);
});
