import { Paperclip } from 'lucide-react';
import { useRef } from 'react';
import { IconButton } from '../look/index.ts';

/** Chooses files for a step. They can be pasted into it and dropped onto it as well. */
export function AddFiles({ number, onAdd }: { readonly number: number; readonly onAdd: (files: readonly File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <IconButton label={`Attach files to step ${number}`} small tabIndex={-1} title="Attach files; or paste a picture into the step" onClick={() => input.current?.click()} icon={<Paperclip size={13} aria-hidden="true" />} />
      <input
        ref={input}
        type="file"
        multiple
        aria-label={`Files for step ${number}`}
        className="hidden"
        onChange={(event) => {
          onAdd([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}
