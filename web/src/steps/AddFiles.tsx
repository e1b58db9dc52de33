import { Paperclip } from 'lucide-react';
import { useRef } from 'react';

/** Chooses files for a step. They can be pasted into it and dropped onto it as well. */
export function AddFiles({ number, onAdd }: { readonly number: number; readonly onAdd: (files: readonly File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" tabIndex={-1} aria-label={`Attach files to step ${number}`} title="Attach files; or paste a picture into the step" className="grid size-6 place-items-center rounded text-ink2 hover:bg-page2" onClick={() => input.current?.click()}>
        <Paperclip size={13} aria-hidden="true" />
      </button>
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
