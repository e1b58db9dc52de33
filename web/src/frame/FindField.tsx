import { useEffect, useState } from 'react';
import type { FindOrDo } from './FindOrDo.tsx';

interface Props {
  readonly project: string;
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

/**
 * The find field is not needed for the first paint and fetched right after it. It opens with the key that asks for it, as
 * what is typed next belongs in it: where it is still on its way a plain field takes that, and hands it over.
 */
export function FindField({ project, isOpen, onClose }: Props) {
  const [fetched, setFetched] = useState<{ readonly FindOrDo: typeof FindOrDo } | null>(null);
  const [typed, setTyped] = useState('');
  useEffect(() => {
    // Where it cannot be had now it is asked for again when it is wanted.
    if (fetched === null) import('./FindOrDo.tsx').then(setFetched, () => undefined);
  }, [fetched, isOpen]);
  if (!isOpen) return null;
  const close = (): void => {
    setTyped('');
    onClose();
  };
  if (fetched !== null) return <fetched.FindOrDo project={project} first={typed} onClose={close} />;
  return <OnItsWay typed={typed} onType={setTyped} onClose={close} />;
}

function OnItsWay({ typed, onType, onClose }: { readonly typed: string; readonly onType: (typed: string) => void; readonly onClose: () => void }) {
  return (
    <div onClick={(event) => event.target === event.currentTarget && onClose()} className="fixed inset-0 z-50 flex items-start justify-center bg-ink/20 pt-[7vh]">
      <div role="dialog" aria-label="Find or do anything" className="w-full max-w-2xl overflow-hidden rounded-[8px] border border-rule2 bg-page">
        <input
          autoFocus
          aria-label="Find or do anything"
          value={typed}
          autoComplete="off"
          onChange={(event) => onType(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') onClose();
          }}
          className="w-full bg-transparent px-5 py-4 text-lg focus:outline-none"
        />
      </div>
    </div>
  );
}
