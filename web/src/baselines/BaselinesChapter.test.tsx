/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { baselineNumber, type Frozen } from '@caderno/core/baselines';
import type { Baseline, BringBack, FrozenChanges, NewBaseline } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { caseHead } from '../../test/heads.ts';
import { conditionHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { BaselinesChapter } from './BaselinesChapter.tsx';

afterEach(cleanup);

const NO_COUNTS = { leftOut: 0, waiting: 0, suspect: 0, shown: 0, linked: 0, gap: 0 };
const baseline = (n: number, more: Partial<Baseline> = {}): Baseline => ({ number: baselineNumber(n), name: `Moment ${n}`, note: '', by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', part: '', revision: n, seal: `${n}`.repeat(64), counts: { requirement: 3, case: n }, agreed: 1, coverage: { counts: { ...NO_COUNTS, shown: n, gap: 10 - n }, cases: n, instances: 4, minutes: 90, unanalysed: 2 }, ...more });
const SAME = { parts: [], constants: [] };
const frozen = (id: Frozen['id'], version: number, more: Partial<Frozen> = {}): Frozen => ({ id, version, meaningSince: version, state: 'draft', title: `Title of ${id}`, module: '', ...more });

function chapter(all: Baseline[], changes: FrozenChanges['changes'], path = '/p/baselines', more: Parameters<typeof standInProject>[2] = {}, rights = {}) {
  const server = standInProject([requirementHead(1, { module: 'Meters' }), requirementHead(2, { state: 'withdrawn' })], [], {
    listBaselines: () => all,
    compareBaselines: ({ params, query }) => ({ from: params.baseline, to: query.to ?? null, changes: query.to === undefined ? changes : [], total: query.to === undefined ? changes.length : 0, reached: [], settings: SAME }),
    readFrozen: ({ params }) => ({ version: 1, kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', text: `As it was of ${params.id}` } }),
    readVersion: ({ params }) => ({ version: Number(params.version), author: 'Rui M.', at: '2026-01-01T10:00:00.000Z', note: '', kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', text: `As it is of ${params.id}` } }),
    ...more,
  });
  onThePage(<BaselinesChapter />, rights, path, '/p/baselines/:baseline?');
  return server;
}

test('the latest is opened; what changed since is told by what became of it, each with its difference', async () => {
  chapter([baseline(2), baseline(1)], [
    { kind: 'added', to: frozen('R-3', 1) },
    { kind: 'changed', from: frozen('R-1', 1), to: frozen('R-1', 4), meant: true },
    { kind: 'changed', from: frozen('R-4', 1), to: frozen('R-4', 2), meant: false },
    { kind: 'gone', from: frozen('R-2', 2) },
    { kind: 'state', from: frozen('R-5', 1), to: frozen('R-5', 1, { state: 'agreed' }) },
  ]);
  expect((await screen.findByRole('heading', { level: 2 })).textContent).toBe('Moment 2');
  const group = async (name: string) => within(await screen.findByRole('region', { name })).getAllByRole('button').map((b) => b.textContent);
  expect([await group('Changed'), await group('Added'), await group('Withdrawn or gone'), await group('The same, but stands otherwise')]).toEqual([
    ['R-1Title of R-1 v1 → v4', 'R-4Title of R-4 v1 → v2, means the same'], ['R-3Title of R-3 v1'], ['R-2Title of R-2 was v2'], ['R-5Title of R-5 draft → agreed'],
  ]);
  fireEvent.click(screen.getByRole('button', { name: /^R-1/ }));
  await waitFor(() => expect([document.querySelector('del')?.textContent, document.querySelector('ins')?.textContent]).toEqual(['was', 'is']));
  fireEvent.click(screen.getByRole('button', { name: /^R-2/ }));
  expect(await screen.findByText('As it was of R-2')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^R-3/ }));
  expect(await screen.findByText('As it is of R-3')).toBeTruthy();
});

test('settings that changed are told, with the constants, though no artefact did; what that touches can be asked', async () => {
  const touched = { changed: 0, constants: ['desk'], touched: [{ of: 'C-1' as const, through: [], constants: ['desk'], rows: null }] };
  const server = chapter([baseline(1)], [], '/p/baselines/1', {
    compareBaselines: ({ params }) => ({ from: params.baseline, to: null, changes: [], total: 0, reached: [], settings: { parts: ['constants', 'priorities'], constants: ['desk'] } }),
    findTouched: () => touched,
  });
  expect((await screen.findByText('Of the settings')).parentElement?.textContent).toBe('Of the settings the constants (<desk>), the priorities');
  expect([screen.getByText('No artefact changed.'), screen.queryByText('Nothing changed.'), screen.queryByRole('button', { name: /^Group by/ })]).toMatchObject([{}, null, null]);
  fireEvent.click(screen.getByRole('button', { name: 'cases it touches' }));
  await screen.findByText('Use what changed');
  expect(server.calls('findTouched')[0]?.body).toEqual({ from: 1, to: null });
});

test('two are compared, with the coverage of both; of a part there is none', async () => {
  const server = chapter([baseline(3), baseline(2), baseline(1, { part: 'R-1', coverage: null })], [], '/p/baselines/3');
  expect(await screen.findByText('Nothing changed.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^Up to/ }));
  fireEvent.click(await screen.findByRole('option', { name: /^B-2/ }));
  await waitFor(() => expect(server.calls('compareBaselines')).toHaveLength(2));
  const row = (name: string) => within(screen.getByRole('row', { name: new RegExp(`^${name}`) })).getAllByRole('cell').map((c) => c.textContent);
  expect([row('coverage'), row('gaps'), row('time to execute')]).toEqual([['30 %', '20 %'], ['7', '8'], [expect.any(String), expect.any(String)]]);
  cleanup();
  chapter([baseline(1, { part: 'R-1', coverage: null })], [], '/p/baselines/1');
  expect(await screen.findByText(/^No coverage was computed for it, as it is of a part/)).toBeTruthy();
});

test('one is taken with a name, of everything or of a requirement; what is refused stays; readers take none', async () => {
  const taken: NewBaseline[] = [];
  const all: Baseline[] = [];
  const commands: (string | null)[] = [];
  chapter(all, [], '/p/baselines', {
    takeBaseline: ({ body, headers }) => {
      commands.push(headers.get('command-id'));
      if (commands.length === 1) throw new Refusing({ code: 'project_busy', seconds: 1 });
      taken.push(body);
      all.unshift(baseline(all.length + 1, { name: body.name }));
      return all[0]!;
    },
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Take a baseline' }));
  const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Take it' });
  expect(button.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Name'), { target: { value: ' Before the pilot ' } });
  expect([...screen.getByLabelText<HTMLSelectElement>('Of').options].map((o) => o.value)).toEqual(['', 'module: Meters', 'R-1']);
  fireEvent.change(screen.getByLabelText('Of'), { target: { value: 'R-1' } });
  fireEvent.click(button);
  await waitFor(() => expect([commands.length, button.disabled]).toEqual([1, false]));
  fireEvent.click(button);
  await waitFor(() => expect(taken).toEqual([{ name: 'Before the pilot', note: '', of: { requirement: 'R-1' } }]));
  expect(new Set(commands).size).toBe(1);
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/baselines/1'));
  cleanup();
  chapter([], [], '/p/baselines', {}, { canEdit: false });
  await screen.findByText('No baseline yet');
  expect(screen.queryByRole('button', { name: 'Take a baseline' })).toBeNull();
});

test('the seal is checked when one asks, and says what was altered', async () => {
  let altered: Frozen['id'][] = [];
  chapter([baseline(1)], [], '/p/baselines/1', { checkBaseline: () => ({ seal: '1'.repeat(64), fits: true, altered }) });
  fireEvent.click(await screen.findByRole('button', { name: 'Check it' }));
  expect(await screen.findByText('All that it holds is as it was sealed.')).toBeTruthy();
  altered = ['C-1'];
  fireEvent.click(screen.getByRole('button', { name: 'Check it' }));
  expect(await screen.findByText(/C-1 were altered in the database/)).toBeTruthy();
});

test('what is selected comes back, told before; everything too, with what was added withdrawn; two that are compared bring nothing back', async () => {
  const sent: unknown[] = [];
  const counts = { content: 1, return: 0, withdraw: 0 };
  const changes: FrozenChanges['changes'] = [{ kind: 'added', to: frozen('R-3', 1) }, { kind: 'changed', from: frozen('R-1', 1), to: frozen('R-1', 4), meant: true }, { kind: 'state', from: frozen('R-5', 1), to: frozen('R-5', 1, { state: 'agreed' }) }];
  const more = {
    planBringBack: ({ body: { of } }: { body: BringBack }) => ({
      lines: [{ id: 'R-1' as const, title: 'Title of R-1', does: 'content' as const, alongWith: null }],
      counts: 'everything' in of && of.withdraw ? { ...counts, withdraw: 1 } : counts, agreed: 1, drafts: 1, users: ['C-1' as const],
    }),
    bringBack: ({ body }: { body: BringBack }) => (sent.push(body), { change: null, changed: 1, left: [] }),
  };
  chapter([baseline(2), baseline(1)], changes, '/p/baselines/2', more);
  expect(await screen.findAllByRole('checkbox')).toHaveLength(2);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Select R-1' }));
  fireEvent.click(screen.getByRole('button', { name: 'Bring it back …' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Bring what is selected back to B-2' }));
  expect((await dialog.findByRole('region', { name: 'What would change' })).textContent).toBe('1 gets back what it said, as a new versionR-1Title of R-1');
  expect(dialog.getAllByRole('listitem').slice(1).map((l) => l.textContent)).toEqual(['One of them is agreed now and becomes a draft.', 'Somebody is writing in one of them: that is kept, and shown beside what comes back.', 'Used by C-1, which stays as it is.', 'It is one entry of the journal, which can undo it.']);
  fireEvent.click(dialog.getByRole('button', { name: 'Bring it back' }));
  await waitFor(() => expect(sent).toEqual([{ of: { ids: ['R-1'] } }]));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Bring everything back …' }));
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Withdraw what was added since, too' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Bring 2 back' }));
  await waitFor(() => expect(sent[1]).toEqual({ of: { everything: true, withdraw: true } }));
  cleanup();
  chapter([baseline(2), baseline(1)], changes, '/p/baselines/2', more, { canEdit: false });
  await screen.findByRole('region', { name: 'Changed' });
  expect([screen.queryByRole('checkbox'), screen.queryByRole('button', { name: /^Bring/ })]).toEqual([null, null]);
});

test('changes stand by module or by requirement too, say then what became of each; agreed cases that they reach are named', async () => {
  const changes: FrozenChanges['changes'] = [{ kind: 'added', to: frozen('C-3', 1, { module: 'Bills' }) }, { kind: 'changed', from: frozen('R-1', 1), to: frozen('R-1', 4, { module: 'Meters' }), meant: true }, { kind: 'gone', from: frozen('S-2', 2) }];
  const heads = [requirementHead(1), conditionHead(1, { requirements: ['R-1'] }), caseHead(3, { covers: ['K-1'] })];
  const server = standInProject(heads, [], {
    listBaselines: () => [baseline(1)], compareBaselines: ({ params }) => ({ from: params.baseline, to: null, changes, total: 3, reached: [{ id: 'C-7', title: 'Agreed', through: ['S-2'] }], settings: SAME }),
  });
  onThePage(<BaselinesChapter />, {}, '/p/baselines/1', '/p/baselines/:baseline?');
  const reached = await screen.findByRole('region', { name: 'Agreed cases that this reaches' });
  expect([reached.textContent, within(reached).getByRole('link').getAttribute('href')]).toEqual(['1 agreed case uses what changedC-7 Agreedthrough S-2', '/p/cases/C-7']);
  const groups = () => screen.getAllByRole('region').flatMap((r) => (r.firstElementChild?.tagName === 'H4' && r !== reached ? [[r.getAttribute('aria-label'), ...within(r).getAllByRole('button').map((b) => b.textContent)]] : []));
  const groupBy = async (name: string) => {
    fireEvent.click(screen.getByRole('button', { name: /^Group by/ }));
    fireEvent.click(await screen.findByRole('option', { name }));
  };
  await groupBy('module');
  await waitFor(() => expect(groups()).toEqual([['Bills', 'C-3Title of C-3 Billsadded v1'], ['Meters', 'R-1Title of R-1 Meterschanged v1 → v4'], ['Without a module', 'S-2Title of S-2 withdrawn or gone was v2']]));
  await groupBy('requirement');
  await waitFor(() => expect(groups().map(([name, ...lines]) => [name, lines.length])).toEqual([['R-1 Requirement 1', 2], ['For no requirement', 1]]));
  expect(server.calls('compareBaselines')).toHaveLength(1);
});
