/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { FromFolder } from './FromFolder.tsx';

afterEach(cleanup);

const choose = (): void => void fireEvent.change(screen.getByLabelText('A saved baseline'), { target: { files: [new File(['PK'], 'b.zip')] } });

test('a saved baseline becomes the project; what a hand changed is told first, and taken when one says so', async () => {
  const asked: unknown[] = [];
  standInProject([], [], {
    createProjectFromFolder: ({ query }) => {
      asked.push(query);
      if (query.changed === 'no') throw new Refusing({ code: 'folder_changed', changed: 1, missing: 0, unknown: 0, first: ['meters/C-1.yaml'] });
      return { key: query.key, name: query.name, role: 'administrator', sees: null };
    },
  });
  onThePage(<FromFolder name="Meters" projectKey="meters" />);
  choose();
  expect((await screen.findByRole('alert')).textContent).toContain('1 changed (meters/C-1.yaml)');
  fireEvent.click(screen.getByRole('button', { name: 'Make the project of them as they are' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/meters/coverage'));
  expect(asked).toEqual([{ key: 'meters', name: 'Meters', changed: 'no' }, { key: 'meters', name: 'Meters', changed: 'yes' }]);
});

test('without a name nothing is sent; what cannot be read is said', async () => {
  const server = standInProject([], [], { createProjectFromFolder: () => { throw new Refusing({ code: 'folder_unreadable', at: '', reason: 'it is no zip' }); } });
  const { again } = onThePage(<FromFolder name="" projectKey="" />);
  choose();
  expect((await screen.findByRole('alert')).textContent).toBe('First say above what the project is called.');
  expect(server.calls('createProjectFromFolder')).toEqual([]);
  again(<FromFolder name="Meters" projectKey="meters" />);
  choose();
  await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('it is no zip'));
});
