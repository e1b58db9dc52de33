import type { Change } from '@caderno/contract';
import { Suspense, lazy, useCallback, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { changeWords, mayBeUndone, notify } from '../look/index.ts';
import { address } from './address.ts';
import { useCommands, type Command } from './commands.ts';

const UndoAsk = lazy(() => import('./UndoAsk.tsx').then((m) => ({ default: m.UndoAsk })));

interface Props {
  readonly project: string;
  readonly person: string;
}

/**
 * One key takes back one’s own last command on the project, an import as well as a save; the same key again takes that
 * back. What is not in view is named first and undone only when that is said.
 */
export function UndoLast({ project, person }: Props) {
  const refresh = useRefresh(project);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [asked, setAsked] = useState<Change | null>(null);
  const undo = useCallback(
    async (change: Change): Promise<void> => {
      setAsked(null);
      await call('undoChange', { params: { project, change: change.id }, body: {} }, { commandId: crypto.randomUUID() });
      const { artefact } = change;
      const there = artefact === null ? address.journal(project) : address.artefact(project, artefact);
      notify((notices) => notices.success(`Undone: ${changeWords(change)}. Shift U again brings it back.`, { action: { label: artefact === null ? 'Open the journal' : `Open ${artefact}`, onClick: () => void navigate(there) } }));
      await refresh();
    },
    [refresh, navigate, project],
  );
  const commands = useMemo<Command[]>(() => {
    const undoOrAsk = async (): Promise<void> => {
      const changes = await call('listChanges', { params: { project }, query: {} });
      const last = changes.find((c) => c.author === person && mayBeUndone(c));
      if (last === undefined) notify((notices) => notices('You have done nothing here that could be undone.'));
      else if (isInView(last, pathname)) await undo(last);
      else setAsked(last);
    };
    return [{ id: 'undo-last', title: 'Undo my last command on the project', keys: 'Shift+U', keyLabel: 'Shift U', changes: true, run: () => void undoOrAsk().catch(tellFailure) }];
  }, [pathname, person, project, undo]);
  useCommands(commands);
  if (asked === null) return null;
  return (
    <Suspense>
      <UndoAsk change={asked} onUndo={() => void undo(asked).catch(tellFailure)} onCancel={() => setAsked(null)} />
    </Suspense>
  );
}

/** Whether the page that is open shows what the command did: the journal does, and the page of the one artefact it changed. */
export function isInView({ artefact, size }: Pick<Change, 'artefact' | 'size'>, pathname: string): boolean {
  const [, , page, ...rest] = pathname.split('/');
  return page === 'journal' || (size === 1 && artefact !== null && rest.at(-1) === artefact);
}
