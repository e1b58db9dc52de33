/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE } from '@caderno/core/cases';
import { EMPTY_SUITE, entryId } from '@caderno/core/suites';
import type { Write } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject, suiteHead } from '../../test/standInProject.ts';
import { MergeDialog } from './MergeDialog.tsx';

afterEach(cleanup);

test('suites have the case that is kept in the place of the one that goes; those of a rule, or that stay with a version, are left alone', async () => {
  const written: Write[] = [];
  const [one, two] = [caseHead(1, { title: 'Kept', version: 3 }), caseHead(2, { title: 'Gone' })];
  const suite = suiteHead(4, { title: 'Smoke', version: 7 });
  const entries = [{ kind: 'member' as const, id: entryId('m'), of: 'C-2' as const, pinned: null, runsIn: null }];
  standInProject([one, two, suite], [], {
    readArtefact: ({ params }) => (params.id === 'C-2' ? { kind: 'case', summary: two, content: { ...EMPTY_CASE, title: 'Gone' }, draft: null } : { kind: 'suite', summary: suite, content: { ...EMPTY_SUITE, title: 'Smoke', entries }, draft: null }),
    readReuse: () => ({ users: [], uses: [] }),
    readSuitesOf: () => [
      { id: 'U-4', title: 'Smoke', members: [{ of: 'C-2', pinned: null, byRule: false }] },
      { id: 'U-5', title: 'By a rule', members: [{ of: 'C-2', pinned: null, byRule: true }] },
      { id: 'U-6', title: 'Then', members: [{ of: 'C-2', pinned: 1, byRule: false }] },
    ],
    writeArtefacts: ({ body }) => (written.push(body), new Promise(() => undefined)),
  });
  onThePage(<MergeDialog kept={{ id: 'C-1', version: 3, content: { ...EMPTY_CASE, title: 'Kept' } }} gone="C-2" onClose={() => undefined} />, { project: 'merge' }, '/merge/cases/C-1', '/merge/cases/:case');
  await waitFor(() => expect(screen.getByText(/^C-1 /).textContent).toContain('U-4 will have C-1 instead of C-2.'));
  fireEvent.click(screen.getByRole('button', { name: 'Merge' }));
  await waitFor(() => expect(written).toHaveLength(1));
  expect(written[0]?.withdrawn).toEqual(['C-2']);
  expect(written[0]?.changed).toMatchObject([{ id: 'C-1', version: 3 }, { kind: 'suite', id: 'U-4', version: 7, content: { entries: [{ id: 'm', of: 'C-1', pinned: null }] } }]);
});
