/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { conditionHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { KeptModule } from './KeptModule.tsx';
import { useFrame } from './useFrame.ts';
import { useModuleBeside } from './useKeptFrom.ts';

afterEach(cleanup);

const RUI = '00000000-0000-4000-8000-000000000011';
const heads = [requirementHead(1, { module: 'Billing' }), caseHead(1, { module: 'Billing' }), caseHead(2, { module: 'Readings' }), caseHead(3), conditionHead(1, { requirements: ['R-1'] })];

function MayEdit() {
  return <p>{useFrame().canEdit ? 'one edits' : 'one reads'}</p>;
}

function open(id: ArtefactId, context: Parameters<typeof onThePage>[1] = { canLead: false }) {
  standInProject(heads, [], {
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, keepers: [{ module: 'Billing', people: [RUI] }, { module: 'Readings', people: [RUI, PERSON.id] }] } }),
    listMembers: () => [{ ...PERSON, role: 'analyst', sees: null }, { id: RUI, name: 'Rui M.', email: 'rui@example.com', role: 'analyst', sees: null }],
  });
  onThePage(<KeptModule id={id}><MayEdit /></KeptModule>, context);
}

test.each(['C-1', 'R-1', 'K-1'] as const)('%s, in a module that others keep, is read, and the page says whom to ask', async (id) => {
  open(id);
  const note = await screen.findByRole('note', { name: 'Who changes this' });
  await waitFor(() => expect(note.textContent).toBe('Only Rui M. and leads change what is in Billing. You can read it, and leave a remark.'));
  expect(screen.getByText('one reads')).toBeTruthy();
});

test.each([['a module of one’s own', 'C-2', { canLead: false }], ['no module', 'C-3', { canLead: false }], ['the lead’s', 'C-1', { canLead: true }]] as const)('%s is edited, and nothing is said', async (_, id, context) => {
  open(id, context);
  // What is known of the project has come when the count of its members could have.
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect([screen.getByText('one edits'), screen.queryByRole('note')]).toMatchObject([{}, null]);
});

test('what is new is put into the module beside it, but into none that others keep', async () => {
  function New() {
    const beside = useModuleBeside();
    return <p>{[beside('Billing'), beside('Readings'), beside(undefined)].map((m) => m || 'none').join(', ')}</p>;
  }
  standInProject(heads, [], { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, keepers: [{ module: 'Billing', people: [RUI] }] } }) });
  onThePage(<New />, { canLead: false });
  expect(await screen.findByText('none, Readings, none')).toBeTruthy();
  cleanup();
  onThePage(<New />);
  expect(await screen.findByText('Billing, Readings, none')).toBeTruthy();
});

test('whoever only reads the project is told nothing of keepers', async () => {
  open('C-1', { canEdit: false, canLead: false });
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect([screen.getByText('one reads'), screen.queryByRole('note')]).toMatchObject([{}, null]);
});
