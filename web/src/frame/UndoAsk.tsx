import type { Change } from '@caderno/contract';
import { Button, Dialog, ago, changeWords } from '../look/index.ts';

interface Props {
  readonly change: Change;
  readonly onUndo: () => void;
  readonly onCancel: () => void;
}

/** Names the command that would be undone, as it is not on the page that is open. */
export function UndoAsk({ change, onUndo, onCancel }: Props) {
  return (
    <Dialog title="Undo your last command?" onClose={onCancel}>
      <p>
        It is not on this page: <strong>{changeWords(change)}</strong>, {ago(change.at)}.
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="accent" onClick={onUndo}>
          Undo it
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </Dialog>
  );
}
