import type { ArtefactId } from '@caderno/core/artefacts';
import { Link2 } from 'lucide-react';
import { useState } from 'react';
import { useFrame } from '../frame/index.ts';
import { GiveLink } from './GiveLink.tsx';

/** Opens the dialog that gives a link to read; readers give none, and nobody gives one to how a project was. */
export function GiveLinkButton({ id }: { readonly id: ArtefactId }) {
  const { isPast, canEdit } = useFrame();
  const [open, setOpen] = useState(false);
  if (isPast || !canEdit) return null;
  return (
    <>
      <button type="button" className="chip-button print:hidden" onClick={() => setOpen(true)}>
        <Link2 size={12} aria-hidden="true" /> Link to read
      </button>
      {open && <GiveLink id={id} onClose={() => setOpen(false)} />}
    </>
  );
}
