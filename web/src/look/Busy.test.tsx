/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { Busy } from './Busy.tsx';

afterEach(cleanup);

test('what is done soon is not told of; what takes a while is, also to those who listen', async () => {
  render(<Busy>Changing 5,000 cases …</Busy>);
  expect(screen.getByRole('status').textContent).toBe('');
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Changing 5,000 cases …'));
  expect(screen.getByRole('progressbar', { name: 'Changing 5,000 cases …' }).hasAttribute('value')).toBe(false);
});
