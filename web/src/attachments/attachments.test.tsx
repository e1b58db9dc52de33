/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { attachmentId, type Attachment } from '@caderno/core/attachments';
import { LIMITS } from '@caderno/contract';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { StandInUpload } from '../../test/standInUploads.ts';
import { Notices } from '../look/index.ts';
import { Attachments } from './Attachments.tsx';
import { sizeWords, withFiles } from './fileWords.ts';

const file = (n: number, part: Partial<Attachment> = {}): Attachment => ({ id: attachmentId(String(n).repeat(64)), name: `dial ${n}.png`, type: 'image/png', size: 1_000 * n, ...part });
const chosen = (name: string): File => new File(['bytes'], name);

function Page({ first, canEdit = true }: { readonly first: readonly Attachment[]; readonly canEdit?: boolean }) {
  const [attachments, setAttachments] = useState(first);
  return (
    <>
      <Attachments attachments={attachments} canEdit={canEdit} onChange={setAttachments} />
      <output>{attachments.map((a) => a.name).join(', ')}</output>
      <Notices />
    </>
  );
}

const there = (): string => screen.getByText((_, element) => element?.tagName === 'OUTPUT').textContent;
const choose = (...files: File[]): void => void fireEvent.change(screen.getByLabelText('Files to attach'), { target: { files } });
const onTheirWay = async (count: number): Promise<void> => waitFor(() => expect(StandInUpload.all).toHaveLength(count));
const page = (first: readonly Attachment[] = [], canEdit = true): void => void onThePage(<Page first={first} canEdit={canEdit} />);
/** A drop or a paste, with what it brings. */
const bring = (kind: 'drop' | 'paste', types: readonly string[], files: readonly File[]): boolean => {
  const event = new Event(kind, { bubbles: true, cancelable: true });
  Object.defineProperty(event, kind === 'drop' ? 'dataTransfer' : 'clipboardData', { value: { types, files } });
  let goesOn = true;
  act(() => {
    goesOn = document.body.dispatchEvent(event);
  });
  return goesOn;
};

beforeEach(() => {
  standInProject([], [], {});
  StandInUpload.install();
});
afterEach(cleanup);

test('files go one after the other, say how far they are, and stand there once they are kept', async () => {
  page([file(1)]);
  choose(chosen('two.png'), chosen('three.pdf'));
  await onTheirWay(1);
  const [two] = StandInUpload.all as [StandInUpload];
  expect(two.address).toContain('/projects/p/attachments?name=two.png');
  act(() => two.upload.onprogress?.({ loaded: 30, total: 40 }));
  expect((screen.getByRole('progressbar', { name: 'How much of two.png is sent' }) as HTMLProgressElement).value).toBe(0.75);
  await act(async () => two.answer(file(2, { name: 'two.png' })));
  await onTheirWay(2);
  expect(there()).toBe('dial 1.png, two.png');
  await act(async () => StandInUpload.all[1]!.answer(file(3, { name: 'three.pdf', type: 'application/pdf' })));
  await waitFor(() => expect(there()).toBe('dial 1.png, two.png, three.pdf'));
  expect(screen.queryByRole('progressbar')).toBeNull();
  // The same bytes under another name are there already.
  choose(chosen('again.png'));
  await onTheirWay(3);
  await act(async () => StandInUpload.all[2]!.answer(file(1, { name: 'again.png' })));
  expect(there()).toBe('dial 1.png, two.png, three.pdf');
});

test('one that is refused says why and is tried again or forgotten; the others go on, and what is too large is not sent', async () => {
  page();
  const large = Object.defineProperty(chosen('large.zip'), 'size', { value: LIMITS.attachment + 1 });
  choose(chosen('virus.exe'), large, chosen('good.png'));
  await onTheirWay(1);
  await act(async () => StandInUpload.all[0]!.refuse({ code: 'attachment_type_refused', name: 'virus.exe' }));
  await onTheirWay(2);
  expect(StandInUpload.all.map((u) => u.file?.name)).toEqual(['virus.exe', 'good.png']);
  await act(async () => StandInUpload.all[1]!.answer(file(4, { name: 'good.png' })));
  expect(there()).toBe('good.png');
  expect(screen.getAllByRole('alert').map((alert) => alert.textContent)).toEqual([expect.stringContaining('of a kind that is not kept'), expect.stringContaining('larger than the 25 MB')]);
  const [again] = screen.getAllByRole('button', { name: 'Try again' });
  fireEvent.click(again!);
  await onTheirWay(3);
  await act(async () => StandInUpload.all[2]!.onerror?.());
  await waitFor(() => expect(screen.getAllByRole('alert')).toHaveLength(2));
  fireEvent.click(screen.getByRole('button', { name: 'Forget virus.exe' }));
  fireEvent.click(screen.getByRole('button', { name: 'Forget large.zip' }));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('one on its way is stopped, and so are all when one leaves the page', async () => {
  const { unmount } = onThePage(<Page first={[]} />);
  choose(chosen('slow.png'), chosen('next.png'));
  await onTheirWay(1);
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Stop slow.png' })));
  await onTheirWay(2);
  expect([StandInUpload.all[0]!.stopped, StandInUpload.all[1]!.file?.name, there()]).toEqual([true, 'next.png', '']);
  unmount();
  expect(StandInUpload.all[1]!.stopped).toBe(true);
});

test('files dropped on the page or pasted are taken; text that brings a picture of itself is text', async () => {
  page();
  expect(bring('paste', ['text/html', 'text/plain', 'Files'], [chosen('table.png')])).toBe(true);
  expect(bring('drop', ['text/plain'], [])).toBe(true);
  expect(bring('paste', ['Files'], [chosen('screen.png')])).toBe(false);
  expect(bring('drop', ['Files'], [chosen('dropped.pdf')])).toBe(false);
  await onTheirWay(1);
  await act(async () => StandInUpload.all[0]!.answer(file(5)));
  await onTheirWay(2);
  expect(StandInUpload.all.map((u) => u.file?.name)).toEqual(['screen.png', 'dropped.pdf']);
});

test('pictures open in place, one after the other; other files are saved; who may only read takes nothing away', async () => {
  const files = [file(1), file(2), file(3, { name: 'readings.xlsx', type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', size: 2_345_678 })];
  page(files, false);
  const list = screen.getByRole('list', { name: 'Attached files' });
  expect(within(list).getByRole('link', { name: /readings\.xlsx/ }).getAttribute('download')).toBe('readings.xlsx');
  expect(list.textContent).toContain(sizeWords(2_345_678));
  expect(screen.queryByRole('button', { name: /^Remove|Attach files/ })).toBeNull();
  fireEvent.click(within(list).getByRole('button', { name: 'Open dial 2.png' }));
  const view = await screen.findByRole('dialog', { name: 'dial 2.png' });
  expect(within(view).getByRole('status').textContent).toBe('2 of 2');
  fireEvent.keyDown(within(view).getByRole('button', { name: 'Next' }), { key: 'ArrowRight' });
  expect(await screen.findByRole('dialog', { name: 'dial 1.png' })).toBeTruthy();
});

test('a file is taken away; more than there may be are not added', async () => {
  page([file(1), file(2)]);
  fireEvent.click(screen.getByRole('button', { name: 'Remove dial 1.png' }));
  expect(there()).toBe('dial 2.png');
  expect(withFiles([file(1)], [file(2), file(2), file(1)], 2)).toEqual([file(1), file(2)]);
  expect(withFiles([file(1), file(2)], [file(3)], 2)).toBeNull();
  expect([null, 0, 999, 1_000, 2_345_678].map(sizeWords)).toEqual(['', '0 B', '999 B', '1 kB', '2.3 MB']);
});
