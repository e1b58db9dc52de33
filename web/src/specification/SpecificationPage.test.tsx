/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { ArtefactKind, IdOfKind } from '@caderno/core/artefacts';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { EMPTY_CASE, newCover, newRow, parameterId, plainStep, rowId, stepId } from '@caderno/core/cases';
import { EMPTY_CONDITION, fieldId, type Model } from '@caderno/core/conditions';
import type { ContentOfKind } from '@caderno/core/kinds';
import { EMPTY_SHARED } from '@caderno/core/shared';
import type { SpecifiedArtefact } from '@caderno/core/specification';
import type { QueryOf } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, standInProject, suiteHead } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';

/** What the pages are made of, and how that ends: the browser lays out nothing here. */
let [given, css, released, stopped] = ['', '', 0, 0];
let ends: () => Promise<{ total: number }>;
jest.unstable_mockModule('pagedjs', () => ({
  Previewer: class {
    readonly chunker = { stop: () => (stopped += 1) };
    readonly polisher = { destroy: () => (released += 1) };
    #hear: () => void = () => undefined;
    on(_: string, hear: () => void): void {
      this.#hear = hear;
    }
    async preview(content: DocumentFragment, sheets: Record<string, string>[], into: HTMLElement): Promise<{ total: number }> {
      given = content.textContent ?? '';
      css = Object.values(sheets[0] ?? {}).join('');
      this.#hear();
      into.append(content);
      return ends();
    }
  },
}));
jest.unstable_mockModule('../drawing/index.ts', () => ({ layOutGraph: () => Promise.reject(new Error('no worker here')), pathThrough: () => '' }));
const { SpecificationPage } = await import('./SpecificationPage.tsx');

const one = <K extends ArtefactKind>(kind: K, id: IdOfKind[K], content: ContentOfKind[K]): SpecifiedArtefact => ({ kind, id, content, parent: null, position: Number(id.slice(2)), version: 3, state: 'agreed' }) as unknown as SpecifiedArtefact;
const condition = (n: number, title: string, model: Model) => one('condition', `K-${n}`, { ...EMPTY_CONDITION, title, requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }], model });
const TABLE: Model = { kind: 'decisionTable', conditions: [{ id: fieldId('c'), name: 'Paid', values: [{ id: 'y', value: 'yes', aliases: [] }, { id: 'n', value: 'no', aliases: [] }] as never }], actions: [{ id: 'a', name: 'Send' }], rules: [{ id: 'r', entries: { c: ['y'] }, actions: { a: 'a receipt' }, impossible: false }] } as never;
const STATES: Model = { kind: 'stateTransitions', level: 'states', invalidPairs: false, states: [{ id: 's', name: 'Open', initial: true, final: false, place: null }, { id: 't', name: 'Closed', initial: false, final: true, place: null }], events: [{ id: 'e', name: 'close' }], transitions: [{ id: 'x', from: 's', event: 'e', to: 't', guard: 'paid', action: 'write it down' }] } as never;
const P = parameterId('p');
const ARTEFACTS: SpecifiedArtefact[] = [
  one('requirement', 'R-1', { ...EMPTY_REQUIREMENT, title: 'Bills', text: 'A bill is **paid** <script>x</script>.', module: 'Bills', risk: 'high' }),
  condition(1, 'A receipt', TABLE),
  condition(2, 'An account', STATES),
  one('shared', 'S-1', { ...EMPTY_SHARED, title: 'Sign in', steps: [plainStep(stepId('a'), 'enter the name')] }),
  one('case', 'C-1', {
    ...EMPTY_CASE, title: 'Pay', module: 'Bills', estimate: 4, covers: [newCover('K-1', 1), newCover('K-9', 1)],
    steps: [{ kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: 2, arguments: [{ id: 'name', value: 'Ana' }] }, plainStep(stepId('b'), 'pay <amount>', 'it is paid')],
    parameters: [{ id: P, name: 'amount', type: 'text', default: '' as never, description: '' }], rows: [newRow(rowId('r'), 'little', { [P]: '0.01' as never })],
  }),
];

let answers: Parameters<typeof standInProject>[2];
const open = (path = '/p/specification') => {
  const rows = [{ kind: 'condition', id: 'K-1', weight: 9, standings: ['shown'], techniques: ['decisionTable'] }] as const;
  const server = standInProject([conditionHead(1), suiteHead(1, { title: 'Smoke' })], rows, answers);
  const page = onThePage(<SpecificationPage />, {}, path);
  return { server, page };
};
beforeEach(() => {
  [given, css, released, stopped] = ['', '', 0, 0];
  ends = () => Promise.resolve({ total: 7 });
  answers = { readSpecification: () => ({ project: 'Fonte Clara', at: '2026-03-05T12:00:00.000Z', artefacts: ARTEFACTS, broken: ['C-4'] }) };
});
afterEach(cleanup);

const sheet = async () => within(await screen.findByRole('article', { name: 'Specification' }));

test('all of it in reading order: texts as text, models with their items as they stand, steps, data, who covers whom', async () => {
  open();
  const { getByRole, getByText, getAllByRole, container } = { ...(await sheet()), container: await screen.findByRole('article', { name: 'Specification' }) };
  expect(getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual(['Contents', 'Requirements and conditions', 'Cases', 'Shared steps']);
  expect(getByText(/What cannot be read is not in it: C-4/)).toBeTruthy();
  expect(container.querySelector('script')).toBeNull();
  expect(getByText('paid').closest('strong')).not.toBeNull();
  expect(within(getByRole('table', { name: 'Rules from 1' })).getAllByRole('cell').map((c) => c.textContent)).toEqual(['yes', 'a receipt']);
  expect(getByText('1 coverage item')).toBeTruthy();
  // It could not be drawn: the table below says all of it.
  expect(within(getByRole('table', { name: 'Transitions of An account' })).getAllByRole('cell').map((c) => c.textContent)).toEqual(['Open', 'close [paid]', 'Closed', 'write it down']);
  const steps = within(getAllByRole('table', { name: 'Steps' })[0]!);
  expect(steps.getAllByRole('row').map((r) => r.textContent)).toEqual(['#what is donewhat is expected', '1→ S-1 Sign in, version 2name = Ana', '2pay <amount>it is paid']);
  expect(within(getByRole('table', { name: 'Rows' })).getAllByRole('row').map((r) => r.textContent)).toEqual(['rowamount', 'little0.01']);
  // What is not in the document is named by its id alone.
  expect(getByText(/^Covers/).textContent).toBe('Covers K-1 A receipt; K-9');
  expect(getByText(/^Covered by/).querySelector('a')?.getAttribute('href')).toBe('#spec-C-1');
  expect(container.querySelector('#spec-C-1')?.textContent).toMatch(/^C-1Payversion 3 · agreed · Procedure · .*4/);
});

test('laid out on pages with page numbers, printed, and let go of when one goes back or leaves', async () => {
  const { page } = open();
  await sheet();
  fireEvent.click(screen.getByRole('button', { name: 'Lay out the pages' }));
  expect(await screen.findByText(/^7 pages\./)).toBeTruthy();
  expect(given).toMatch(/^Test design of Fonte Clara.*Contents.*R-1Bills.*C-1Pay/s);
  expect(css).toMatch(/size: A4.*counter\(page\).*target-counter\(attr\(href\), page\)/s);
  expect(screen.queryByRole('article', { name: 'Specification' })).toBeNull();
  const print = jest.spyOn(window, 'print').mockImplementation(() => undefined);
  fireEvent.click(screen.getByRole('button', { name: /Print/ }));
  expect(print).toHaveBeenCalledTimes(1);
  fireEvent.click(screen.getByRole('button', { name: 'Back to the text' }));
  await sheet();
  expect([released, document.querySelector('.spec-pages')?.childNodes.length]).toEqual([1, 0]);
  fireEvent.click(screen.getByRole('button', { name: 'Lay out the pages' }));
  await screen.findByText(/^7 pages\./);
  page.unmount();
  expect(released).toBe(2);
});

test('it can be stopped, and where it fails the text is there again; nothing of the pages stays', async () => {
  let end: (done: { total: number }) => void = () => undefined;
  ends = () => new Promise((resolve) => (end = resolve));
  open();
  await sheet();
  fireEvent.click(screen.getByRole('button', { name: 'Lay out the pages' }));
  expect(await screen.findByText('Page 1 …')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(stopped).toBe(1);
  end({ total: 1 });
  await waitFor(() => expect(released).toBe(1));
  expect(screen.getByRole('button', { name: 'Lay out the pages' })).toBeTruthy();
  ends = () => Promise.reject(new Error('no room'));
  fireEvent.click(screen.getByRole('button', { name: 'Lay out the pages' }));
  await waitFor(() => expect(released).toBe(2));
  await sheet();
  expect(document.querySelector('.spec-pages')?.childNodes).toHaveLength(0);
});

test('where nothing is designed there is nothing to lay out', async () => {
  answers = { readSpecification: () => ({ project: 'New', at: '2026-03-05T12:00:00.000Z', artefacts: [], broken: [] }) };
  open();
  expect(await screen.findByText(/stand here once they are written/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Lay out the pages' }).disabled).toBe(true);
});

test('of a module or a suite: the address says which, and what is asked follows it; too much is said', async () => {
  const asked: object[] = [];
  answers = {
    readSpecification: ({ query }: { query: QueryOf<'readSpecification'> }) => {
      asked.push(query);
      if (query.suite === undefined) throw new Refusing({ code: 'specification_too_long', count: 5_000, limit: 1_500 });
      return { project: 'Fonte Clara', at: '2026-03-05T12:00:00.000Z', artefacts: ARTEFACTS, broken: [] };
    },
  };
  open();
  expect(await screen.findByText(/^5000 artefacts are too many for one document/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Lay out the pages' }).disabled).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: /^Of/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'U-1 Smoke' }));
  expect((await sheet()).getByText(/^Of U-1, with all that it uses/)).toBeTruthy();
  expect(screen.getByTitle('Address').textContent).toBe('/p/specification?suite=U-1');
  expect(asked).toEqual([{}, { suite: 'U-1' }]);
  // Pages are of the part that they were laid out of.
  fireEvent.click(screen.getByRole('button', { name: 'Lay out the pages' }));
  await screen.findByText(/^7 pages\./);
  fireEvent.click(screen.getByRole('button', { name: /^Of/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'everything' }));
  await waitFor(() => expect(released).toBe(1));
  expect(screen.queryByText(/^7 pages\./)).toBeNull();
});
