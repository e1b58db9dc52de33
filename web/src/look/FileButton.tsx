import { useRef } from 'react';
import { Button, TextButton } from './Button.tsx';

interface Props {
  readonly label: string;
  /** Endings of files, as an `accept` has them. */
  readonly accept: string;
  readonly onChoose: (file: File) => void;
  readonly look: 'accent' | 'plain' | 'text';
  /** What the button says that opens the choice. */
  readonly children: string;
}

/** A button that asks for a file; the same one may be chosen again. */
export function FileButton({ label, accept, onChoose, look, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const open = (): void => input.current?.click();
  return (
    <>
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file !== undefined) onChoose(file);
          event.target.value = '';
        }}
      />
      {look === 'text' ? (
        <TextButton onClick={open}>{children}</TextButton>
      ) : (
        <Button look={look} onClick={open}>
          {children}
        </Button>
      )}
    </>
  );
}
