/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter, Route, Routes, useLocation, useNavigate } from 'react-router';
import { useParameters, withParameters, type ParameterChange } from './useParameters.ts';

afterEach(cleanup);

function Page({ change }: { readonly change: ParameterChange }) {
  const [search, setParameters] = useParameters();
  const navigate = useNavigate();
  return (
    <>
      <output>{`${useLocation().pathname} ${search.toString()}`}</output>
      <button onClick={() => setParameters(change)}>Change</button>
      <button onClick={() => void navigate(-1)}>Back</button>
    </>
  );
}
const said = (): string | null => screen.getByRole('status').textContent;

test('what is named is changed, null and empty are taken out, the rest stays; going back leads to the page before', async () => {
  render(
    <MemoryRouter initialEntries={['/before', '/here?of=risk&at=7&row=R-1']} initialIndex={1}>
      <Routes>
        <Route path="*" element={<Page change={{ at: '9', of: null, row: '', show: 'a & b' }} />} />
      </Routes>
    </MemoryRouter>,
  );
  fireEvent.click(screen.getByRole('button', { name: 'Change' }));
  expect(said()).toBe('/here at=9&show=a+%26+b');
  fireEvent.click(screen.getByRole('button', { name: 'Change' }));
  expect(said()).toBe('/here at=9&show=a+%26+b');
  fireEvent.click(screen.getByRole('button', { name: 'Back' }));
  expect(said()).toBe('/before ');
});

test('an address is made without changing the one it is made of', () => {
  const search = new URLSearchParams('of=risk');
  expect([withParameters(search, { at: '3' }).toString(), search.toString()]).toEqual(['of=risk&at=3', 'of=risk']);
});
