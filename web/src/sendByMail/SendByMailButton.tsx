import type { SendByMail as Sent } from '@caderno/contract';
import { Mail } from 'lucide-react';
import { useState } from 'react';
import { useFrame } from '../frame/index.ts';
import { SendByMail } from './SendByMail.tsx';

/** Opens the dialog that sends something by mail; of how a project was nothing is sent. */
export function SendByMailButton({ of, words }: { readonly of: Sent['of']; readonly words: string }) {
  const { isPast } = useFrame();
  const [open, setOpen] = useState(false);
  if (isPast) return null;
  return (
    <>
      <button type="button" className="chip-button print:hidden" onClick={() => setOpen(true)}>
        <Mail size={12} aria-hidden="true" /> Send by mail
      </button>
      {open && <SendByMail of={of} words={words} onClose={() => setOpen(false)} />}
    </>
  );
}
