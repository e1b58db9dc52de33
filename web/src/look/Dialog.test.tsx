/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useEffect, useState } from 'react';
import { followFocus } from '../focus/index.ts';
import { Dialog } from './Dialog.tsx';

let stopFollowing = (): void => undefined;
beforeEach(() => {
  stopFollowing = followFocus(document);
});
afterEach(() => {
  cleanup();
  stopFollowing();
});

function Page({ late = false, keepsAtOnce = false }: { readonly late?: boolean; readonly keepsAtOnce?: boolean }) {
  const [open, setOpen] = useState(false);
  const [there, setThere] = useState(!late);
  return (
    <>
      <button onClick={() => setOpen(true)}>Open</button>
      {open && (
        <Dialog title="Rename" onClose={() => setOpen(false)} keepsAtOnce={keepsAtOnce}>
          <button onClick={() => setThere(true)}>Draw the field</button>
          <input type="search" aria-label="Search" readOnly />
          {there && <input aria-label="Name" />}
        </Dialog>
      )}
    </>
  );
}
async function open(page: React.ReactNode): Promise<HTMLElement> {
  render(page);
  const opener = screen.getByRole('button', { name: 'Open' });
  opener.focus();
  fireEvent.click(opener);
  await screen.findByRole('dialog', { name: 'Rename' });
  return opener;
}
const escape = (): boolean => fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' });

test('whoever has begun elsewhere in it stays there, also when a field is drawn after that; closed, the focus is where it was', async () => {
  const opener = await open(<Page late />);
  const draw = screen.getByRole('button', { name: 'Draw the field' });
  draw.focus();
  fireEvent.keyDown(draw, { key: 'Enter' });
  act(() => draw.click());
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(document.activeElement).toBe(draw);
  escape();
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  await waitFor(() => expect(document.activeElement).toBe(opener));
});

test('what was typed is asked about before it is lost; where it counts at once it is not', async () => {
  await open(<Page />);
  fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'x' } });
  escape();
  expect((await screen.findByRole('alert')).textContent).toContain('What you typed here is not saved yet.');
  fireEvent.click(screen.getByRole('button', { name: 'Keep writing' }));
  expect(screen.queryByRole('alert')).toBeNull();
  escape();
  fireEvent.click(await screen.findByRole('button', { name: 'Discard it' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  cleanup();
  await open(<Page keepsAtOnce />);
  fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'x' } });
  escape();
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

test('it begins in what it names first, else in its first field, although that is drawn a moment later', async () => {
  function Named({ late }: { readonly late: boolean }) {
    const [there, setThere] = useState(!late);
    useEffect(() => {
      const timer = setTimeout(() => setThere(true), 30);
      return () => clearTimeout(timer);
    }, []);
    return (
      <Dialog title="Carry" onClose={() => undefined}>
        <button>Its schema</button>
        {there && <button data-first>Save</button>}
      </Dialog>
    );
  }
  for (const late of [false, true, false]) {
    const { unmount } = render(<Named late={late} />);
    await waitFor(() => expect(document.activeElement?.textContent).toBe('Save'));
    // What the dialog before gives back comes a moment after it is gone: it takes nothing from this one.
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(document.activeElement?.textContent).toBe('Save');
    unmount();
  }
});

/** A dialog in which one chooses; a field may come into it later. */
function Choosing() {
  const [open, setOpen] = useState(false);
  const [there, setThere] = useState(false);
  return (
    <>
      <button onClick={() => setOpen(true)}>Open</button>
      <button onClick={() => setThere(true)}>Draw the field</button>
      {open && (
        <Dialog title="Rename" onClose={() => setOpen(false)}>
          <input type="radio" name="which" aria-label="All" readOnly checked={false} />
          <input type="radio" name="which" aria-label="Some" readOnly checked />
          {there && <input aria-label="Name" />}
        </Dialog>
      )}
    </>
  );
}

test('where one only chooses it begins at what is chosen; a field that comes later has the focus, unless one has begun to choose', async () => {
  await open(<Choosing />);
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Some')));
  act(() => screen.getByText('Draw the field').click());
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Name')));
  cleanup();
  await open(<Choosing />);
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Some')));
  fireEvent.keyDown(screen.getByLabelText('Some'), { key: 'ArrowUp' });
  act(() => screen.getByText('Draw the field').click());
  await screen.findByLabelText('Name');
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(document.activeElement).toBe(screen.getByLabelText('Some'));
});
