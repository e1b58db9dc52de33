import { useId, useLayoutEffect, useSyncExternalStore } from 'react';
import { tinykeys } from 'tinykeys';
import { isDialogOpen, isMeantForPage } from '../focus/index.ts';

/** Something a person can do on the page that is open: by its name from Find or do, or by keys. */
export interface Command {
  readonly id: string;
  readonly title: string;
  /** As tinykeys reads them: `$mod+s`, `g b`; several when keyboards differ. */
  readonly keys?: string | readonly string[];
  /** How the keys are shown. */
  readonly keyLabel?: string;
  readonly run: () => void;
  /** Works while one is typing; keys with a modifier do, single letters do not. */
  readonly whileTyping?: boolean;
  /** Makes or changes something: its key asks for the page itself or a link on it, and is no button's. */
  readonly changes?: boolean;
}

const registered = new Map<string, readonly Command[]>();
const listeners = new Set<() => void>();
let snapshot: readonly Command[] = [];

function changed(): void {
  snapshot = [...registered.values()].flat();
  for (const listener of listeners) listener();
}

/** The commands of everything that is on the page. */
export function useAllCommands(): readonly Command[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => snapshot,
  );
}

/** Offers commands as long as the component is there. The list must be stable (useMemo) or is re-registered at each render. */
export function useCommands(commands: readonly Command[]): void {
  const owner = useId();
  // Before it is painted: who sees a page may press its keys.
  useLayoutEffect(() => {
    registered.set(owner, commands);
    changed();
    const bindings = commands.flatMap((c) => [c.keys ?? []].flat().map((keys) => [keys, handlerOf(c)] as const));
    const stop = tinykeys(window, Object.fromEntries(bindings));
    return () => {
      stop();
      registered.delete(owner);
      changed();
    };
  }, [commands, owner]);
}

/** No key reaches what lies under a dialog. */
function handlerOf(command: Command): (event: KeyboardEvent) => void {
  return (event) => {
    if (event.defaultPrevented) return;
    const meant = command.whileTyping === true ? !isDialogOpen(document) : isMeantForPage(event.target, event.key, command.changes === true ? 'changes' : 'leads', document);
    if (!meant) return;
    event.preventDefault();
    command.run();
  };
}
