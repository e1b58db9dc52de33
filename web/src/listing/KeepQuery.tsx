import { LIMITS } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { Button, Dialog, Tick, TextBox, Labelled } from '../look/index.ts';

interface Props {
  readonly title: string;
  /** What is kept, as it is seen. */
  readonly children: ReactNode;
  readonly canShare: boolean;
  readonly onSave: (name: string, everybody: boolean) => Promise<boolean>;
  readonly onClose: () => void;
}

/** Asks for the name under which something is kept, and for whom. */
export function KeepQuery({ title, children, canShare, onSave, onClose }: Props) {
  const [name, setName] = useState('');
  const [everybody, setEverybody] = useState(false);
  const [busy, setBusy] = useState(false);
  const save = async (): Promise<void> => {
    setBusy(true);
    if (await onSave(name, everybody)) onClose();
    else setBusy(false);
  };
  return (
    <Dialog title={title} onClose={onClose} keepsAtOnce>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        {children}
        <Labelled label="Name" className="mt-3 text-sm">
          <TextBox value={name} onChange={setName} maxLength={LIMITS.name} className="w-full" />
        </Labelled>
        {canShare && (
          <Tick checked={everybody} onChange={setEverybody} className="mt-3 text-sm">
            For everybody in the project
          </Tick>
        )}
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy || name.trim() === ''}>
            Save
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
