import { useState, type ReactNode } from 'react';
import { tellFailure } from '../api/index.ts';
import { Button, Dialog, Answer, Tick } from '../look/index.ts';

interface Props<F extends string> {
  readonly title: string;
  readonly formats: readonly { readonly format: F; readonly name: string; readonly what: string }[];
  readonly format: F;
  readonly onFormat: (format: F) => void;
  /** What else is chosen of the file. */
  readonly children: ReactNode;
  /** What becomes of the file later. */
  readonly note: string;
  readonly save: () => Promise<void>;
  readonly onClose: () => void;
}

/** How something goes out as a file. A file that is refused is asked for again from the same dialog, with what was chosen. */
export function ExportDialog<F extends string>({ title, formats, format, onFormat, children, note, save, onClose }: Props<F>) {
  const [busy, setBusy] = useState(false);
  const submit = async (): Promise<void> => {
    setBusy(true);
    try {
      await save();
      onClose();
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <fieldset>
          <legend className="text-xs text-ink2">As</legend>
          {formats.map(({ format: value, name, what }) => (
            <Answer key={value} name="format" checked={format === value} onPick={() => onFormat(value)}>
              <span className="w-24">{name}</span>
              <span className="text-ink2">{what}</span>
            </Answer>
          ))}
        </fieldset>
        {children}
        <p className="mt-3 text-xs text-ink2">{note}</p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy}>
            {busy ? 'Writing …' : 'Save the file'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

interface PartProps {
  readonly checked: boolean;
  readonly disabled?: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly children: ReactNode;
}

/** Something that may come along. */
export function ExportPart({ checked, disabled = false, onChange, children }: PartProps) {
  return (
    <Tick checked={checked} disabled={disabled} onChange={onChange}>
      {children}
    </Tick>
  );
}
