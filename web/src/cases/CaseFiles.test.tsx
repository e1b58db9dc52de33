/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { useListing } from '../listing/index.ts';
import { CaseFiles } from './CaseFiles.tsx';

afterEach(cleanup);

/** The menu beside the list, as it is filtered by a query that finds everything. */
function Beside({ query }: { readonly query: string }) {
  const { view, list } = useListing('case');
  return (
    <>
      <p>{list === undefined ? 'unknown' : 'known'}</p>
      <CaseFiles listing={{ view: { ...view, query }, list }} />
    </>
  );
}

async function opened(count: number, query: string, canEdit: boolean) {
  standInProject(Array.from({ length: count }, (_, i) => caseHead(i + 1)), []);
  onThePage(<Beside query={query} />, { canEdit });
  await waitFor(() => expect(screen.getByText('known')).toBeTruthy());
  await userEvent.click(screen.getByRole('button', { name: 'Cases from and to files' }));
  return screen.getAllByRole('menuitem').map((item) => [item.textContent, item.getAttribute('aria-disabled') === 'true']);
}

test.each([
  ['an analyst brings cases in and takes all out', 2, '', true, [['Import cases', false], ['Export all 2 cases', false], ['Carry all 2 cases to another project', false], ['Bring in a part of another project', false]]],
  ['a list that is filtered is taken out as it stands there', 1, 'tag:smoke', true, [['Import cases', false], ['Export the case of the list', false], ['Carry the case of the list to another project', false], ['Bring in a part of another project', false]]],
  ['a reader only takes out', 2, '', false, [['Export all 2 cases', false], ['Carry all 2 cases to another project', false]]],
  ['an empty project has nothing to take out', 0, '', true, [['Import cases', false], ['Export all 0 cases', true], ['Carry all 0 cases to another project', true], ['Bring in a part of another project', false]]],
] as const)('%s', async (_, count, query, canEdit, items) => {
  expect(await opened(count, query, canEdit)).toEqual(items);
});

test('the file is of what the list is asked for, and importing has an address of its own', async () => {
  await opened(2, 'tag:smoke', true);
  await userEvent.click(screen.getByRole('menuitem', { name: /^Export/ }));
  expect(screen.getByRole('dialog', { name: 'Export the 2 cases of the list' })).toBeTruthy();
  cleanup();
  await opened(2, '', true);
  await userEvent.click(screen.getByRole('menuitem', { name: 'Import cases' }));
  expect(screen.getByTitle('Address').textContent).toBe('/p/import-cases');
});
