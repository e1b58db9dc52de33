/** @jest-environment ./web/test/browserEnvironment.mjs */
import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { Notices, notify } from './Notices.tsx';

test('a notice that is given before there is a corner to show it in is shown as soon as there is one', async () => {
  notify((notices) => notices.error('Nothing was saved.', { duration: Infinity }));
  await import('sonner');
  render(<Notices />);
  expect(await screen.findByText('Nothing was saved.')).toBeTruthy();
  notify((notices) => notices('Something else.', { duration: Infinity }));
  expect(await screen.findByText('Something else.')).toBeTruthy();
});
