import { useMemo } from 'react';
import { useCommands, type Command } from '../frame/index.ts';
import type { Editing } from './editing.ts';

/** Save, undo and redo by key and by name. `name`: what is edited. `onNote`: begins a note on the version, where it may have one. */
export function useEditCommands(name: string, { save, undo, redo }: Pick<Editing<unknown>, 'save' | 'undo' | 'redo'>, canEdit: boolean, onNote: (() => void) | null): void {
  const commands = useMemo<Command[]>(
    () =>
      canEdit
        ? [
            { id: 'save', title: `Save ${name} as a version`, keys: '$mod+s', keyLabel: 'Ctrl S', whileTyping: true, run: () => void save('') },
            ...(onNote === null ? [] : [{ id: 'save-note', title: `Save ${name} with a note`, keys: '$mod+Shift+s', keyLabel: 'Ctrl Shift S', whileTyping: true, run: onNote }]),
            { id: 'undo', title: 'Undo the last edit', keys: '$mod+z', keyLabel: 'Ctrl Z', whileTyping: true, run: undo },
            { id: 'redo', title: 'Redo', keys: '$mod+Shift+z', keyLabel: 'Ctrl Shift Z', whileTyping: true, run: redo },
          ]
        : [],
    [canEdit, name, onNote, redo, save, undo],
  );
  useCommands(commands);
}
