/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { lazy, Suspense } from 'react';
import { createMemoryRouter, Outlet } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { PageFailed, isOfEarlierRelease } from './PageFailed.tsx';

afterEach(cleanup);

/** A frame with a page that fails when it is fetched. */
async function pageThatFails(error: Error): Promise<string> {
  // React tells of what failed on the console, which is as it should be.
  const console = jest.spyOn(globalThis.console, 'error').mockImplementation(() => undefined);
  const Page = lazy(() => Promise.reject<{ default: () => null }>(error));
  const frame = <><nav>The frame</nav><Outlet /></>;
  render(<RouterProvider router={createMemoryRouter([{ path: '/', element: frame, children: [{ errorElement: <PageFailed />, children: [{ index: true, element: <Suspense><Page /></Suspense> }] }] }])} />);
  const shown = (await screen.findByRole('heading')).textContent ?? '';
  console.mockRestore();
  expect(screen.getByRole('navigation').textContent).toBe('The frame');
  return shown;
}

test('a part of an earlier release asks for a reload, anything else says what failed; the frame stands', async () => {
  expect(await pageThatFails(new TypeError('Failed to fetch dynamically imported module: http://127.0.0.1/assets/x.js'))).toBe('Caderno was brought up to date');
  cleanup();
  expect(await pageThatFails(new Error('x is undefined'))).toBe('This page failed');
  expect(screen.getByText(/x is undefined/)).toBeTruthy();
  expect(screen.getAllByRole('button').map((b) => b.textContent)).toEqual(['Reload the page', 'Go back']);
});

test('each browser words a missing part in its own way', () => {
  expect(['error loading dynamically imported module: x', 'Importing a module script failed.', 'Failed to fetch'].map((m) => isOfEarlierRelease(new TypeError(m)))).toEqual([true, true, false]);
});
