import type { ArtefactId } from '@caderno/core/artefacts';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { address, useCommands, useFrame, type Command } from '../frame/index.ts';

/** What the commands of a list are called. */
export interface ListTitles {
  readonly next: string;
  readonly before: string;
  readonly make: string;
}

/** The keys of a chapter that opens one of a list: j and k go through it, n makes a new one. `titles` must be stable. */
export function useListCommands(ids: readonly ArtefactId[], current: ArtefactId | null, add: () => void, titles: ListTitles): void {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const commands = useMemo<Command[]>(() => {
    const open = (step: number) => (): void => {
      const id = ids[(current === null ? -1 : ids.indexOf(current)) + step];
      if (id !== undefined) void navigate({ pathname: address.artefact(project, id), search: window.location.search });
    };
    return [
      { id: 'next-of-list', title: titles.next, keys: 'j', keyLabel: 'j', run: open(1) },
      { id: 'previous-of-list', title: titles.before, keys: 'k', keyLabel: 'k', run: open(-1) },
      ...(canEdit ? [{ id: 'new-in-list', title: titles.make, keys: 'n', keyLabel: 'n', changes: true, run: add }] : []),
    ];
  }, [add, canEdit, current, ids, navigate, project, titles]);
  useCommands(commands);
}
