import type { HandOffNumber } from '@caderno/core/handOffs';
import type { ReturnedNotes } from '@caderno/contract';
import { useState } from 'react';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { FileButton } from '../look/index.ts';
import { ReturnedDialog } from './ReturnedDialog.tsx';

/** Takes a file back that was handed off, and shows what was noted in it. */
export function BringBack({ number }: { readonly number: HandOffNumber }) {
  const { project } = useFrame();
  const [busy, setBusy] = useState(false);
  const [returned, setReturned] = useState<ReturnedNotes | null>(null);
  const read = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      setReturned(await call('readReturned', { params: { project, handOff: number }, query: { name: file.name.slice(-290) }, body: new Uint8Array(await file.arrayBuffer()) }));
    } catch (error) {
      tellFailure(error);
    }
    setBusy(false);
  };
  return (
    <span className="print:hidden">
      <FileButton label="File that came back" accept=".xlsx,.csv,.json" look="plain" onChoose={(file) => void read(file)}>
        {busy ? 'Reading …' : 'Bring back what was remarked'}
      </FileButton>
      {returned !== null && <ReturnedDialog number={number} returned={returned} onClose={() => setReturned(null)} />}
    </span>
  );
}
