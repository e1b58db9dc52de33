/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { NewReadLink, ReadLink } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { GiveLinkButton } from './GiveLinkButton.tsx';

afterEach(cleanup);

const link = (id: number, part: Partial<ReadLink> = {}): ReadLink => ({ id: `00000000-0000-4000-8000-00000000000${id}`, of: 'C-1', title: 'Reading', forWhom: '', by: 'Rui M.', madeAt: '2027-01-05T09:00:00.000Z', endsAt: '2027-01-12T09:00:00.000Z', opened: 0, openedAt: null, ...part });

function dialog(context = {}, refuse = false) {
  const given: NewReadLink[] = [];
  let links = [link(1, { forWhom: 'The keeper', opened: 2, openedAt: '2027-01-06T09:00:00.000Z' }), link(2, { of: 'C-2' })];
  standInProject([], [], {
    listReadLinks: () => links,
    makeReadLink: ({ body }) => {
      if (refuse) throw new Refusing({ code: 'artefact_unknown', id: 'C-1' });
      given.push(body);
      links = [link(3, { forWhom: body.forWhom }), ...links];
      return { token: 'w'.repeat(43), links };
    },
    endReadLink: ({ params }) => (links = links.filter((l) => l.id !== params.link)),
  });
  onThePage(<GiveLinkButton id="C-1" />, context);
  const button = screen.queryByRole('button', { name: 'Link to read' });
  if (button !== null) fireEvent.click(button);
  return given;
}
const lines = () => within(screen.getByRole('list', { name: 'Links to read' })).queryAllByRole('listitem').map((line) => line.textContent);

test('a link is made for somebody and shown this once; those given before are seen and ended', async () => {
  const given = dialog();
  await waitFor(() => expect(lines()).toEqual([expect.stringMatching(/^The keeper.*opened 2 times/)]));
  fireEvent.change(screen.getByRole('textbox', { name: /For whom/ }), { target: { value: ' The mason ' } });
  fireEvent.click(screen.getByRole('button', { name: 'Make the link' }));
  expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'The link to read C-1' })).value).toBe(`${window.location.origin}/shown#${'w'.repeat(43)}`);
  expect(given).toEqual([{ id: 'C-1', forWhom: 'The mason', days: 7 }]);
  expect(lines()).toEqual([expect.stringMatching(/^The mason.*never opened yet/), expect.stringMatching(/^The keeper/)]);
  fireEvent.click(screen.getByRole('button', { name: 'End the link to C-1 for The keeper' }));
  await waitFor(() => expect(lines()).toEqual([expect.stringMatching(/^The mason/)]));
});

test('what is refused shows no link; readers, and who looks at how a project was, are offered none', async () => {
  dialog({}, true);
  fireEvent.click(await screen.findByRole('button', { name: 'Make the link' }));
  await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make the link' }).disabled).toBe(false));
  expect(screen.queryByRole('textbox', { name: 'The link to read C-1' })).toBeNull();
  for (const context of [{ canEdit: false }, { isPast: true }]) {
    cleanup();
    dialog(context);
    expect(screen.queryByRole('button', { name: 'Link to read' })).toBeNull();
  }
});
