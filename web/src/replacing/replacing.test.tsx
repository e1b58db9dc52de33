/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { finderOf, placesFound, type Search, type TextPart } from '@caderno/core/replacing';
import { EMPTY_CASE, plainStep, stepId } from '@caderno/core/cases';
import type { FoundInArtefact, KindAndContent } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { piecesOf, placeWords } from './placeWords.ts';
import { ReplacePage } from './ReplacePage.tsx';

afterEach(cleanup);

const valve = (title: string): KindAndContent => ({ kind: 'case', content: { ...EMPTY_CASE, title, steps: [plainStep(stepId('s1'), 'Open the valve', 'The valve is open')] } });
const contents = new Map([['C-1', valve('Valve one')], ['C-2', valve('Valve two')]] as const);

/** Looks through two cases as the server does, two places at a time. */
function server() {
  const found = ({ search, parts, skip }: { readonly search: Search; readonly parts: readonly TextPart[]; readonly skip: number }) => {
    const find = finderOf(search);
    const places = [...contents].flatMap(([id, value]) => placesFound(value, find ?? (() => []), new Set(parts)).map(({ path, part, text, matches }): FoundInArtefact => ({ id, path, part, name: path === 'title' ? { kind: 'field', field: 'title' } : { kind: 'step', number: 1, field: part === 'expected' ? 'expected' : 'action' }, text, matches: [...matches] })));
    return { revision: 7, places: places.slice(skip, skip + 2), total: places.length, matches: places.length, artefacts: 2 };
  };
  return standInProject([caseHead(1, { title: 'Valve one' }), caseHead(2, { title: 'Valve two' })], [], {
    findPlaces: ({ body }) => found(body),
    changeMany: () => ({ change: null, changed: 2, made: [], left: [] }),
  });
}

const write = (label: string, value: string): void => void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const status = (): string => screen.getByRole('status').textContent ?? '';

test('each place is shown with its change, fetched as one comes to it; what is unticked stays, and one command does the rest', async () => {
  const stand = server();
  onThePage(<ReplacePage />, {}, '/p/replace?kind=case&query=valve');
  write('Find', 'valve');
  await waitFor(() => expect(status()).toBe('6 matches in 6 places of 2 artefacts'));
  await waitFor(() => expect(screen.getAllByRole('checkbox', { name: /of C-/ })).toHaveLength(8));
  expect(stand.calls('findPlaces').map(({ body }) => (body as { skip: number }).skip)).toEqual([0, 2, 4]);
  expect(screen.queryByText('tap')).toBeNull();
  write('Replace with', 'tap');
  await waitFor(() => expect(screen.getAllByText('tap').map((e) => e.tagName)).toEqual(['INS', 'INS', 'INS', 'INS', 'INS', 'INS']));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Step 1, expected of C-1' }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'All of C-2' }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Title of C-2' }));
  expect(within(screen.getByRole('list', { name: 'Places' })).getAllByText('tap')).toHaveLength(3);
  fireEvent.click(screen.getByRole('button', { name: 'Replace in 3 places' }));
  await waitFor(() => expect(stand.calls('changeMany')).toHaveLength(1));
  expect(stand.calls('changeMany')[0]?.body).toMatchObject({
    of: { kind: 'case', query: 'valve' },
    done: { kind: 'replace', search: { text: 'valve', replacement: 'tap' }, asOf: 7, without: [{ id: 'C-1', paths: ['steps/s1/expected'] }, { id: 'C-2', paths: ['steps/s1/action', 'steps/s1/expected'] }] },
    detail: '“valve” replaced with “tap”',
  });
});

test('ticks are of one search: with other words all begin ticked', async () => {
  server();
  onThePage(<ReplacePage />, {}, '/p/replace');
  write('Find', 'valve');
  fireEvent.click(await screen.findByRole('checkbox', { name: 'All of C-1' }));
  const boxes = (): boolean[] => screen.getAllByRole<HTMLInputElement>('checkbox', { name: /^Title of/ }).map((box) => box.checked);
  await waitFor(() => expect(boxes()).toEqual([false, true]));
  write('Replace with', 'tap');
  await waitFor(() => expect(boxes()).toEqual([false, true]));
  write('Find', 'valv');
  await waitFor(() => expect(boxes()).toEqual([true, true]));
});

test('what is no pattern yet is said and not asked for; nothing chosen looks through nothing; a reader replaces nothing', async () => {
  const stand = server();
  onThePage(<ReplacePage />, { canEdit: false }, '/p/replace');
  expect(status()).toContain('Write what is to be found');
  fireEvent.click(screen.getByLabelText(/^a pattern/));
  write('Find', 'valve(');
  await waitFor(() => expect(status()).toBe('“valve(” is no pattern yet.'));
  expect(stand.calls('findPlaces')).toEqual([]);
  write('Find', 'v.lve');
  await waitFor(() => expect(status()).toBe('6 matches in 6 places of 2 artefacts'));
  expect(screen.queryByRole('button', { name: /^(Replace|Remove)/ })).toBeNull();
  for (const part of ['titles', 'texts, objectives, preconditions', 'steps', 'expected results', 'data and given values', 'fields of the project’s own']) fireEvent.click(screen.getByLabelText(part));
  await waitFor(() => expect(status()).toBe('Nothing is chosen to be looked through.'));
});

describe('words', () => {
  test.each<[Parameters<typeof placeWords>[0], string]>([
    [{ kind: 'field', field: 'preconditions' }, 'Preconditions'],
    [{ kind: 'own', field: 'Place of work' }, 'Place of work'],
    [{ kind: 'step', number: 2, field: 'action' }, 'Step 2'],
    [{ kind: 'argument', number: 3, parameter: 'user' }, 'Step 3, <user>'],
    [{ kind: 'row', row: '', number: 4, field: 'description' }, 'Row 4, what for'],
    [{ kind: 'cell', row: 'usual', number: 1, column: 'reading' }, 'Row “usual”, <reading>'],
  ])('%j', (name, words) => expect(placeWords(name)).toBe(words));
  test('what stands far from a match is cut, what is between two is not lost where it is short', () => {
    const long = 'x'.repeat(200);
    const pieces = piecesOf(`${long}meter and meter${long}`, [{ at: 200, length: 5, replacement: 'dial' }, { at: 210, length: 5, replacement: '' }]);
    expect(pieces.map(({ kind, text }) => `${kind} ${text.replaceAll(/x+/g, 'x…')}`)).toEqual(['same  … x…', 'out meter', 'in dial', 'same  and ', 'out meter', 'same x… … ']);
  });
});
