import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { call, tellFailure } from '../api/index.ts';
import { useCommands, type Command } from './commands.ts';

/** One key takes back one’s own last command on the project, an import as well as a save; the same key again takes that back. */
export function useUndoLast(project: string, person: string, canEdit: boolean): void {
  const client = useQueryClient();
  const commands = useMemo<Command[]>(() => {
    if (!canEdit) return [];
    const undo = async (): Promise<void> => {
      const changes = await call('listChanges', { params: { project }, query: {} });
      const last = changes.find((c) => c.author === person && !c.undone);
      if (last === undefined) return void toast('You have done nothing here that could be undone.');
      await call('undoChange', { params: { project, change: last.id }, body: {} }, { commandId: crypto.randomUUID() });
      toast.success(`Undone: your last command${last.size > 1 ? `, on ${last.size} artefacts` : ''}. Shift U again brings it back.`);
      await client.invalidateQueries({ queryKey: [project] });
    };
    return [{ id: 'undo-last', title: 'Undo my last command on the project', keys: 'Shift+U', keyLabel: 'Shift U', run: () => void undo().catch(tellFailure) }];
  }, [canEdit, client, person, project]);
  useCommands(commands);
}
