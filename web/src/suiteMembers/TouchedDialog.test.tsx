/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { SuiteContent, TouchedMember } from '@caderno/core/suites';
import { baselineNumber } from '@caderno/core/baselines';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, standInProject } from '../../test/standInProject.ts';
import { TouchedDialog } from './TouchedDialog.tsx';

afterEach(cleanup);

const HEADS = [caseHead(1, { title: 'First' }), caseHead(2, { title: 'Second' }), featureHead(1, { title: 'Bill', scenarios: [{ number: 2, name: 'a bill', tags: [], steps: 2, instances: 4 }] })];
const TOUCHED: readonly TouchedMember[] = [{ of: 'C-1', through: ['K-1', 'C-1'], constants: ['limit'], rows: null }, { of: 'C-2', through: ['R-1', 'R-2', 'K-1', 'K-2', 'S-1'], constants: [], rows: null }, { of: 'F-1/2', through: [], constants: ['billing page', 'limit'], rows: null }];
let projects = 0;

function dialog(answer: { readonly changed: number; readonly constants?: readonly string[]; readonly touched: readonly TouchedMember[] }, canEdit = true) {
  const made: SuiteContent[] = [];
  const project = `t${(projects += 1)}`;
  const server = standInProject(HEADS, [], {
    findTouched: () => ({ constants: [], ...answer }),
    writeArtefacts: ({ body }) => (body.made.forEach((m) => m.kind === 'suite' && made.push(m.content)), new Promise(() => undefined)),
  });
  onThePage(<TouchedDialog of={{ from: baselineNumber(1), to: null }} change="B-1 until now" onClose={() => undefined} />, { project, canEdit }, `/${project}/baselines`, `/${project}/baselines`);
  return { server, made };
}
const lines = (part: string) => within(screen.getByRole('list', { name: part })).getAllByRole('listitem').map((li) => li.textContent);

test('what a change touches stands by its reason, with what of the change does, and what is ticked becomes a suite', async () => {
  const { server, made } = dialog({ changed: 6, touched: TOUCHED });
  await waitFor(() => expect(lines('Changed themselves')).toEqual(['FirstK-1, <limit>C-1']));
  expect(lines('Use what changed')).toEqual(['SecondR-1, R-2, K-1, K-2 …C-2', 'a bill<billing page>, <limit>F-1/2']);
  expect(server.called.find((c) => c.name === 'findTouched')?.body).toEqual({ from: 1, to: null });
  fireEvent.click(screen.getByRole('checkbox', { name: 'Second' }));
  fireEvent.click(screen.getByRole('button', { name: 'Make a suite of 2 members' }));
  await waitFor(() => expect(made).toHaveLength(1));
  expect(made[0]?.title).toBe('Touched by B-1 until now');
  expect(made[0]?.entries.map((e) => (e.kind === 'part' ? e.title : e.of))).toEqual(['Changed themselves', 'C-1', 'Use what changed', 'F-1/2']);
});

test('where only rows are others these are named, few of many', async () => {
  const only = (of: 'C-1' | 'C-2' | 'C-3', ...rows: readonly string[]): TouchedMember => ({ of, through: of === 'C-2' ? ['D-1'] : [of], constants: [], rows });
  dialog({ changed: 3, touched: [only('C-1', 'low'), only('C-2', '1', '2', '3', '4', '5'), only('C-3')] });
  await waitFor(() => expect(lines('Changed themselves')).toEqual(['Firstonly the row lowC-1', 'only rows were taken awayC-3']));
  expect(lines('Use what changed')).toEqual(['SecondD-1: only the rows 1, 2, 3, 4 …C-2']);
});

test('where nothing is touched the reason is told, and whoever only reads makes nothing', async () => {
  dialog({ changed: 0, touched: [] });
  await screen.findByText('Nothing changed what it means, so no case has to be looked at again.');
  cleanup();
  dialog({ changed: 0, constants: ['limit'], touched: [] });
  await screen.findByText('No case or scenario uses or covers any of it.');
  cleanup();
  dialog({ changed: 2, touched: [] });
  await screen.findByText('No case or scenario uses or covers any of it.');
  cleanup();
  dialog({ changed: 6, touched: TOUCHED }, false);
  await screen.findByText('Use what changed');
  expect(screen.queryByRole('button', { name: /^Make/ })).toBeNull();
});
