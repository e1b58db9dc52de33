/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { ExportCases } from './ExportCases.tsx';

afterEach(cleanup);
beforeEach(() => {
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = () => undefined;
});

test('a file is asked for as it is chosen; what an instance cannot have beside it is not offered', async () => {
  const server = standInProject([], [], { exportCases: () => ({ name: 'x', type: 'text/csv', bytes: new Uint8Array() }) as never });
  let closed = 0;
  onThePage(<ExportCases of={{ kind: 'case', query: 'tag:smoke' }} words="12 cases" onClose={() => (closed += 1)} />);
  expect(screen.getByRole('dialog', { name: 'Export 12 cases' })).toBeTruthy();
  fireEvent.click(screen.getByLabelText('a sheet for each module'));
  fireEvent.click(screen.getByLabelText('requirements and coverage beside each case'));
  fireEvent.click(screen.getByLabelText('a row for each case'));
  fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
  await waitFor(() => expect(server.calls('exportCases')[0]?.body).toEqual({ of: { kind: 'case', query: 'tag:smoke' }, format: 'xlsx', layout: 'caseRows', figures: true, sheets: true, files: false }));
  await waitFor(() => expect(closed).toBe(1));
  fireEvent.click(screen.getByLabelText('a row for each instance, all values in place'));
  expect(['requirements and coverage beside each case', 'the attached files, all in a zip', 'a sheet for each module'].map((name) => screen.getByLabelText(name))).toMatchObject([{ disabled: true }, { disabled: true }, { disabled: true }]);
  expect(screen.getByText(/does not come in again/)).toBeTruthy();
  fireEvent.click(screen.getByRole('radio', { name: /^JSON all/ }));
  expect([screen.queryByLabelText('a row for each case'), screen.queryByLabelText('a sheet for each module')]).toEqual([null, null]);
  fireEvent.click(screen.getByRole('radio', { name: /^JSON Schema/ }));
  expect([screen.queryByLabelText('requirements and coverage beside each case'), screen.queryByLabelText('the attached files, all in a zip')]).toEqual([null, null]);
});

test('attached files come along where they are wanted, and are not asked for where they cannot', async () => {
  const server = standInProject([], [], { exportCases: () => ({ name: 'x', type: 'application/zip', bytes: new Uint8Array() }) as never });
  const saved = async (...chosen: readonly RegExp[]): Promise<unknown> => {
    onThePage(<ExportCases of={{ ids: ['C-1'] }} words="1 case" onClose={cleanup} />);
    fireEvent.click(screen.getByRole('checkbox', { name: 'the attached files, all in a zip' }));
    for (const name of chosen) fireEvent.click(screen.getByRole('radio', { name }));
    const before = server.calls('exportCases').length;
    fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    return server.calls('exportCases')[before]?.body;
  };
  expect(await saved(/^Markdown/)).toMatchObject({ format: 'md', files: true });
  expect(await saved(/^JSON Schema/)).toMatchObject({ format: 'schema', files: false });
  expect(await saved(/^XLSX/, /^a row for each instance/)).toMatchObject({ format: 'xlsx', layout: 'instanceRows', files: false });
});

test('a file that cannot be written is asked for again from the same dialog, with what was chosen', async () => {
  let isFull = true;
  const server = standInProject([], [], {
    exportCases: () => {
      if (isFull) throw new Refusing({ code: 'role_too_low', needed: 'reader', have: 'reader' });
      return { name: 'x', type: 'text/csv', bytes: new Uint8Array() } as never;
    },
  });
  let closed = 0;
  onThePage(<ExportCases of={{ ids: ['C-1'] }} words="1 case" onClose={() => (closed += 1)} />);
  fireEvent.click(screen.getByRole('radio', { name: /^Markdown/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
  await waitFor(() => expect(server.calls('exportCases')).toHaveLength(1));
  await waitFor(() => expect(screen.getByRole('button', { name: 'Save the file' })).toMatchObject({ disabled: false }));
  expect([closed, screen.getByRole('radio', { name: /^Markdown/ })]).toMatchObject([0, { checked: true }]);
  isFull = false;
  fireEvent.click(screen.getByRole('button', { name: 'Save the file' }));
  await waitFor(() => expect(closed).toBe(1));
  expect(server.calls('exportCases').map((c) => c.body)).toEqual(Array.from({ length: 2 }, () => ({ of: { ids: ['C-1'] }, format: 'md', layout: 'stepRows', figures: false, sheets: false, files: false })));
});
