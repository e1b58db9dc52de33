/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, type CaseContent } from '@caderno/core/cases';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { DailyChips, RareChips, rareWords } from './CaseChips.tsx';

afterEach(cleanup);

function Head({ first, canEdit = true }: { readonly first: Partial<CaseContent>; readonly canEdit?: boolean }) {
  const [content, setContent] = useState<CaseContent>({ ...EMPTY_CASE, ...first });
  const given = { content, instances: 7n, canEdit, update: (change: (content: CaseContent) => CaseContent) => setContent(change) };
  return (
    <>
      <DailyChips content={content} canEdit={canEdit} update={given.update} />
      <RareChips {...given}>what else can be done</RareChips>
      <output>{JSON.stringify([content.module, content.owner, content.estimate, content.tags, content.kind, content.execution])}</output>
    </>
  );
}

const written = (): unknown => JSON.parse(screen.getByRole('status').textContent ?? '');

function head(first: Partial<CaseContent>, canEdit = true): void {
  standInProject([caseHead(1, { module: 'Counter' })], [], { listMembers: () => [{ id: '00000000-0000-4000-8000-000000000001', name: 'Rui M.', email: 'rui@example.com', role: 'analyst', sees: null, active: true }] as never });
  onThePage(<Head first={first} canEdit={canEdit} />);
}

test('what is looked at every day is on the line; of the rest the most is said in a few words', () => {
  const charter = { module: 'Meter readings', owner: 'Inês V.', estimate: 6, tags: ['boundary', 'smoke'], kind: 'charter', execution: 'automated' } as const;
  head(charter);
  expect((screen.getByRole('combobox', { name: 'Module' }) as HTMLInputElement).value).toBe('Meter readings');
  expect(screen.getByRole('button', { name: 'Owner: Inês V.' })).toBeTruthy();
  expect(rareWords({ ...EMPTY_CASE, ...charter }, 7n)).toEqual(['Charter', 'Automated', '42 min', 'boundary', 'smoke']);
  expect(rareWords(EMPTY_CASE, 7n)).toEqual([]);
  expect(screen.getByText('× 7 = 42 min')).toBeTruthy();
  expect(screen.getByText('what else can be done')).toBeTruthy();
});

test('all of it is written where it stands', async () => {
  head({});
  fireEvent.change(screen.getByRole('combobox', { name: 'Module' }), { target: { value: 'Bills' } });
  fireEvent.click(screen.getByRole('button', { name: 'Owner: No owner' }));
  fireEvent.click(await screen.findByRole('option', { name: 'Rui M.' }));
  fireEvent.change(screen.getByLabelText('Minutes:'), { target: { value: '2,5' } });
  fireEvent.change(screen.getByLabelText('Tags:'), { target: { value: 'a, b,, a' } });
  fireEvent.blur(screen.getByLabelText('Tags:'));
  fireEvent.click(screen.getByRole('button', { name: 'Run: Run by hand' }));
  fireEvent.click(await screen.findByRole('option', { name: 'Automated' }));
  await waitFor(() => expect(written()).toEqual(['Bills', 'Rui M.', 2.5, ['a', 'b'], 'procedure', 'automated']));
  fireEvent.change(screen.getByLabelText('Minutes:'), { target: { value: 'many' } });
  expect(written()).toEqual(['Bills', 'Rui M.', 2.5, ['a', 'b'], 'procedure', 'automated']);
});

test('who may only read changes nothing', () => {
  head({ module: 'Bills' }, false);
  expect((screen.getByRole('combobox', { name: 'Module' }) as HTMLInputElement).readOnly).toBe(true);
  expect((screen.getByRole('button', { name: 'Owner: No owner' }) as HTMLButtonElement).disabled).toBe(true);
});
