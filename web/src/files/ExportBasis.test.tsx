/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { ExportBasis } from './ExportBasis.tsx';

afterEach(cleanup);
beforeEach(() => {
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = () => undefined;
});

test('requirements are asked for as it is chosen; what ReqIF cannot hold is not offered for it; what is refused is asked for again', async () => {
  let isFull = true;
  const asked: unknown[] = [];
  standInProject([], [], {
    exportBasis: ({ query }) => {
      asked.push(query);
      if (isFull) throw new Refusing({ code: 'role_too_low', needed: 'reader', have: 'reader' });
      return { name: 'x', type: 'text/csv', bytes: new Uint8Array() } as never;
    },
  });
  let closed = 0;
  onThePage(<ExportBasis project="p" onClose={() => (closed += 1)} />);
  const files = (): HTMLElement | null => screen.queryByRole('checkbox', { name: 'the attached files, all in a zip' });
  fireEvent.click(screen.getByRole('radio', { name: /^Markdown/ }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'conditions and coverage beside each requirement' }));
  fireEvent.click(files()!);
  fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
  await waitFor(() => expect(screen.getByRole('button', { name: 'Save the file' })).toMatchObject({ disabled: false }));
  isFull = false;
  fireEvent.click(screen.getByRole('radio', { name: /^ReqIF/ }));
  expect(files()).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
  await waitFor(() => expect(closed).toBe(1));
  expect(asked).toEqual([{ format: 'md', figures: 'yes', files: 'yes' }, { format: 'reqif', figures: 'yes', files: 'no' }]);
});
