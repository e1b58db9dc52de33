/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ShownByLink } from '@caderno/contract';
import { act, cleanup, screen } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { ShownPage } from './ShownPage.tsx';

afterEach(() => {
  cleanup();
  window.location.hash = '';
});

const TOKEN = 'w'.repeat(43);
const COPY: ShownByLink['copy'] = { title: 'Reading', texts: [], table: null, instances: [], beyond: '0', files: [] };
const text = (words: string) => ({ kind: 'text', text: words }) as const;

function open(copy: Partial<ShownByLink['copy']>, id: ShownByLink['id'] = 'C-1', hash = TOKEN): string[] {
  const asked: string[] = [];
  window.location.hash = hash;
  standInProject([], [], {
    openReadLink: ({ body }) => {
      asked.push(body.token);
      if (body.token !== TOKEN) throw new Refusing({ code: 'read_link_ended' });
      return { id, project: 'Wells', version: 3, state: 'agreed', savedAt: '2027-01-05T09:00:00.000Z', by: 'Rui M.', endsAt: '2027-01-12T09:00:00.000Z', copy: { ...COPY, ...copy } };
    },
  });
  onThePage(<ShownPage />);
  return asked;
}

test('a case is read step by step in each instance, with what stands in place of names', async () => {
  const asked = open({
    instances: [
      { name: 'one', texts: [{ field: 'objective', parts: [text('To know '), { kind: 'value', text: '5' }] }], steps: [{ from: '', action: [text('Type '), { kind: 'value', text: '5' }, text(' into '), { kind: 'unbound', text: 'field' }], expected: [text('seen')] }, { from: 'S-1 Log in', action: [{ kind: 'gone', text: 'S-9' }], expected: [] }] },
      { name: 'two', texts: [], steps: [{ from: '', action: [text('Type '), { kind: 'missing', text: 'n' }], expected: [] }] },
    ],
    beyond: '3',
    files: ['well.png'],
  });
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('Reading');
  expect(screen.getByText(/^from “Wells” · version 3, agreed/)).toBeTruthy();
  const said = screen.getByRole('main').textContent;
  for (const words of ['instance 1 of 5', 'instance 2 of 5', 'To know 5', 'Type 5 into <field>', '⇒ seen', 'S-1 Log in', 'not there any more: S-9', 'Type no n, on purpose', 'and 3 more instances', 'stay in the project: well.png']) expect(said).toContain(words);
  expect(asked).toEqual([TOKEN]);
});

test('texts are shown as text, whatever is in them; what is empty or too large says so', async () => {
  open({ texts: [{ field: 'text', text: 'A *reading* <script>window.ran = 1</script> [x](javascript:alert(1))' }], table: [['row', 'n'], ['one', '5']] }, 'R-1');
  expect((await screen.findByText('reading')).closest('em')).not.toBeNull();
  expect(screen.getByRole('main').querySelector('script, a[href^="javascript"]')).toBeNull();
  expect(screen.getAllByRole('cell').map((c) => c.textContent)).toEqual(['one', '5']);
  cleanup();
  open({});
  expect(await screen.findByText('Nothing is written yet beyond the title.')).toBeTruthy();
  cleanup();
  open({ beyond: '70' });
  expect(await screen.findByText(/too large to be shown here/)).toBeTruthy();
});

test('a link that was ended, and one that was cut, say what to do', async () => {
  open({}, 'C-1', 'x'.repeat(43));
  expect(await screen.findByText(/Ask whoever gave it to you/)).toBeTruthy();
  cleanup();
  open({}, 'C-1', 'cut');
  expect(await screen.findByText(/The link is not whole/)).toBeTruthy();
  // The whole one is put into the same address line.
  act(() => void (window.location.hash = TOKEN));
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('Reading');
});
