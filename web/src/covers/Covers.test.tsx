/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, newCover, type CaseContent } from '@caderno/core/cases';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, standInProject } from '../../test/standInProject.ts';
import { Covers } from './Covers.tsx';

afterEach(cleanup);

const content: CaseContent = { ...EMPTY_CASE, covers: [newCover('K-1', 1), newCover('K-7', 1)] };

test('a condition that is not there is no link that counts for ever: it is said so, and it can be unlinked', async () => {
  standInProject([conditionHead(1)], []);
  let now = content;
  const covers = (canEdit: boolean, isPast: boolean) => onThePage(<Covers id="C-1" of="case" content={content} conditions={new Map()} coverages={new Map()} canEdit={canEdit} update={(change) => (now = { ...now, ...change(now) })} onFill={null} />, { canEdit, isPast });
  const { unmount } = covers(true, false);
  await screen.findByText(/is no longer in the project\./);
  expect(screen.getAllByRole('listitem').map((li) => li.textContent?.slice(0, 3))).toEqual(['K-1', 'K-7']);
  expect(screen.queryByRole('link', { name: /K-7/ })).toBeNull();
  expect(screen.getByRole('link', { name: /K-1/ })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Unlink K-7' }));
  await waitFor(() => expect(now.covers.map((c) => c.id)).toEqual(['K-1']));
  unmount();
  covers(false, true);
  await screen.findByText(/is not among what you see here\./);
  expect(screen.queryByRole('button', { name: /Unlink/ })).toBeNull();
});
