/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { TextInput } from './TextInput.tsx';

afterEach(cleanup);

function Field({ first, readOnly = false }: { readonly first: string; readonly readOnly?: boolean }) {
  const [value, setValue] = useState(first);
  return <TextInput label="Module" value={value} readOnly={readOnly} onChange={setValue} />;
}

test('spaces around are let stand while one types, and go when one leaves; a field that is only read is left as it is', () => {
  render(<Field first="" />);
  const field = screen.getByRole<HTMLInputElement>('textbox');
  fireEvent.change(field, { target: { value: ' Tariff ' } });
  expect(field.value).toBe(' Tariff ');
  fireEvent.blur(field);
  expect(field.value).toBe('Tariff');
  cleanup();
  render(<Field first="Bills " readOnly />);
  fireEvent.blur(screen.getByRole('textbox'));
  expect(screen.getByRole<HTMLInputElement>('textbox').value).toBe('Bills ');
});
