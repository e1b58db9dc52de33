/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { GUESS_ALL, type FileProblem, type ReadingOptions } from '@caderno/core/exchange';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Problems } from './Problems.tsx';
import { ReadingChoices } from './ReadingChoices.tsx';

afterEach(cleanup);

const unknown = (line: number): FileProblem => ({ code: 'value_unknown', severity: 'warning', line, column: 'Priority', field: 'priority', value: `v${line}` });
const shownIn = (): (string | null)[] => within(screen.getByRole('list', { name: 'Problems in the file' })).getAllByRole('listitem').map((li) => li.textContent);

test('a problem says how bad it is, where it is, and what to do', () => {
  render(<Problems preview={{ problems: [{ code: 'title_missing', severity: 'error', line: 4, column: 'Title' }, { code: 'id_missing', severity: 'warning', line: null, column: null }], counts: { errors: 1, warnings: 1 } }} />);
  expect(shownIn()).toMatchObject([expect.stringMatching(/^errorline 4, Title./), 'look atwhole fileNo column is the id. Titles stand in: whatever gets a new title comes in as new.']);
  expect(screen.queryByRole('button')).toBeNull();
});

test('a value nobody knows is said to be left out, with where the known ones are named; an id that is there twice, with the line of the first', () => {
  const own: FileProblem = { code: 'value_unknown', severity: 'warning', line: 3, column: 'Channel', field: 'Channel', value: 'Moon' };
  render(<Problems preview={{ problems: [unknown(2), own, { ...own, column: 'Covers', field: 'conditions', value: 'K-99' }, { code: 'id_doubled', severity: 'error', line: 9, column: 'Nr.', id: 'T-2', first: 5 }], counts: { errors: 1, warnings: 3 } }} />);
  expect(shownIn()).toEqual([
    'look atline 2, Priority“v2” is no priority known here; it is not taken over. Priorities are named in the settings.',
    'look atline 3, Channel“Moon” is no Channel known here; it is not taken over.',
    'look atline 3, Covers“K-99” is no condition known here; it is not taken over.',
    'errorline 9, Nr.The id “T-2” stands in line 5 already. The second is not taken in.',
  ]);
});

test('of many the first stand there until all are asked for; of more than were sent it says so', () => {
  render(<Problems preview={{ problems: Array.from({ length: 12 }, (_, i) => unknown(i + 2)), counts: { errors: 0, warnings: 40 } }} />);
  expect([shownIn().length, shownIn()[7]?.includes('line 9')]).toEqual([8, true]);
  fireEvent.click(screen.getByRole('button', { name: 'all 40' }));
  expect([shownIn().length, screen.getByText('The first 12 of 40.'), screen.queryByRole('button')]).toMatchObject([12, {}, null]);
});

test('places of a document are its paragraphs, and what no text can hold is counted', () => {
  render(<Problems places="paragraph" preview={{ problems: [{ code: 'text_before_heading', severity: 'warning', line: 1, column: null }, { code: 'document_left', severity: 'warning', line: null, column: null, pictures: 2, notes: 1 }, { code: 'document_left', severity: 'warning', line: null, column: null, pictures: 1, notes: 0 }], counts: { errors: 0, warnings: 3 } }} />);
  expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual([
    'look atparagraph 1The text before the first heading belongs to no requirement and is not taken in.',
    'look atwhole fileLeft out: 2 pictures and 1 footnote. Attach pictures to the requirements by hand where they matter.',
    'look atwhole fileLeft out: 1 picture. Attach pictures to the requirements by hand where they matter.',
  ]);
});

test('without problems there is nothing', () => {
  const { container } = render(<Problems preview={{ problems: [], counts: { errors: 0, warnings: 0 } }} />);
  expect(container.textContent).toBe('');
});

/** Chooses an option; answers how the file is read then. */
async function chosen(format: 'csv' | 'xlsx', label: RegExp, option: string): Promise<ReadingOptions[]> {
  const asked: ReadingOptions[] = [];
  const draft = { reading: { ...GUESS_ALL, header: 2 }, format, sheets: format === 'xlsx' ? ['One', 'Two'] : [], names: { header: 2, rows: ['A title', 'Key · Case'] } };
  render(<ReadingChoices draft={draft} onReread={(reading) => asked.push(reading)} />);
  if (format === 'csv') fireEvent.click(screen.getByRole('button', { name: 'Read it differently' }));
  await userEvent.click(screen.getByRole('button', { name: label }));
  await userEvent.click(screen.getByRole('option', { name: option }));
  cleanup();
  return asked;
}

test('a file is read again as one says, everything else as before; another sheet has its names elsewhere', async () => {
  expect(await chosen('csv', /^Row of names: 2: Key · Case/, '1: A title')).toEqual([{ ...GUESS_ALL, header: 1 }]);
  expect(await chosen('csv', /^Row of names/, 'none')).toEqual([{ ...GUESS_ALL, header: 0 }]);
  expect(await chosen('csv', /^Separator: guessed/, 'semicolon')).toEqual([{ ...GUESS_ALL, header: 2, separator: ';' }]);
  expect(await chosen('csv', /^Encoding: guessed/, 'Windows-1252')).toEqual([{ ...GUESS_ALL, header: 2, encoding: 'windows-1252' }]);
  expect(await chosen('xlsx', /^Sheet: One/, 'Two')).toEqual([{ ...GUESS_ALL, header: null, sheet: 'Two' }]);
});

test.each(['stories', 'docx'] as const)('a document of %s has nothing to choose', (format) => {
  const { container } = render(<ReadingChoices draft={{ reading: GUESS_ALL, format, sheets: [], names: null }} onReread={() => expect(true).toBe(false)} />);
  expect(container.textContent).toBe('');
});
