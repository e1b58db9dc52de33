/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { onThePage } from '../../test/onThePage.tsx';
import { Spread } from './Spread.tsx';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});

let isNarrow = true;
const windowChanged = new EventTarget();

/** A narrow window; answers what was brought into view. */
function narrow(): string[] {
  const into: string[] = [];
  isNarrow = true;
  jest.spyOn(window, 'matchMedia').mockImplementation((media) => Object.assign(windowChanged, { matches: isNarrow && media.includes('max-width'), media, onchange: null, addListener: jest.fn(), removeListener: jest.fn() }));
  Element.prototype.scrollIntoView = function scrolled(this: Element) {
    into.push(this.getAttribute('aria-label') ?? '');
  };
  return into;
}

const pages = { chapter: 'test', leftShare: 40, leftLabel: 'List', rightLabel: 'Sheet' };

function Chosen() {
  const [opened, setOpened] = useState<string | null>(null);
  return <Spread {...pages} opened={opened} left={<button onClick={() => setOpened('C-1')}>one</button>} right={<p>{opened}</p>} />;
}

test('on a narrow window what the path names is brought into view, the chapter alone is not, another of it is again', () => {
  const into = narrow();
  const left = ['/p/conditions', '/p/conditions/R-1', '/p/conditions/R-1/K-2'].map((to) => <Link key={to} to={to}>{to}</Link>);
  onThePage(<Spread {...pages} left={left} right={<p>right</p>} />, {}, '/p/conditions', '*');
  expect(into).toEqual([]);
  fireEvent.click(screen.getByText('/p/conditions/R-1'));
  fireEvent.click(screen.getByText('/p/conditions/R-1/K-2'));
  expect(into).toEqual(['Sheet', 'Sheet']);
});

test('where the page says what is opened the path does not count: a form begins at its top', () => {
  const into = narrow();
  onThePage(<Chosen />, {}, '/p/hand-offs/new', '*');
  expect(into).toEqual([]);
  fireEvent.click(screen.getByText('one'));
  expect([into, screen.getByText('C-1').textContent]).toEqual([['Sheet'], 'C-1']);
});

test('whoever enlarges the page, or makes it small again, keeps what is open and typed', () => {
  const into = narrow();
  isNarrow = false;
  onThePage(<Spread {...pages} left={<p>left</p>} right={<input aria-label="Note" />} />, {}, '/p/cases/C-1', '*');
  const field = screen.getByLabelText<HTMLInputElement>('Note');
  fireEvent.change(field, { target: { value: 'half a sentence' } });
  expect(into).toEqual([]);
  for (const [next, seen] of [[true, ['Sheet']], [false, ['Sheet']]] as const) {
    isNarrow = next;
    act(() => void windowChanged.dispatchEvent(new Event('change')));
    expect([screen.getByLabelText('Note') === field, field.value, into]).toEqual([true, 'half a sentence', seen]);
  }
});
