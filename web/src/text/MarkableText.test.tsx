/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, beforeAll, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { MarkableText } from './MarkableText.tsx';

const TEXT = 'A deposit is a whole number of **euros** up to 200.';

beforeAll(() => {
  Range.prototype.getBoundingClientRect = () => new DOMRect(0, 0, 10, 10);
});
afterEach(cleanup);

const made: string[] = [];
const words = { label: 'Make a condition', run: (start: number, end: number) => void made.push(TEXT.slice(start, end)) };
const withSpans = (...spans: [number, number][]) => <MarkableText text={TEXT} marks={[words]} spans={spans.map(([start, end]) => ({ id: `s-${start}`, start, end, className: 'cad-weak', title: 'weak' }))} />;
const box = () => screen.getByRole('group', { name: 'Text to mark words in' });

/** Marks from one word to another, as a hand does. */
function mark(from: string, to: string): void {
  const [first, last] = [from, to].map((word) => [...box().querySelectorAll('[data-start]')].find((piece) => piece.textContent?.includes(word) === true)?.firstChild);
  if (!(first instanceof Text) || !(last instanceof Text)) throw new Error('not shown');
  window.getSelection()?.setBaseAndExtent(first, first.data.indexOf(from), last, last.data.indexOf(to) + to.length);
}

test('Enter makes something of what is marked at that moment, also when the browser has not told of it yet', async () => {
  standInProject([], []);
  onThePage(withSpans());
  await screen.findByText('euros');
  mark('whole', 'euros');
  fireEvent.keyDown(box(), { key: 'Enter' });
  expect(made.splice(0)).toEqual(['whole number of **euros']);
  expect(fireEvent.keyDown(box(), { key: 'Enter' })).toBe(true);
  expect(made).toEqual([]);
});

test('what is marked stays so when weak words come to be known meanwhile', async () => {
  standInProject([], []);
  const page = onThePage(withSpans());
  await screen.findByText('euros');
  mark('deposit', 'number');
  await screen.findByRole('button', { name: 'Make a condition' });
  const before = box().querySelectorAll('[data-start]').length;
  page.again(withSpans([2, 6], [15, 20]));
  await waitFor(() => expect(box().querySelectorAll('[data-start]').length).toBeGreaterThan(before));
  act(() => void fireEvent.keyDown(box(), { key: 'Enter' }));
  expect(made.splice(0)).toEqual(['deposit is a whole number']);
});
