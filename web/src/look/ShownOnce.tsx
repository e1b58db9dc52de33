import { toast } from 'sonner';
import { Button } from './Button.tsx';

interface Props {
  /** What it is, where it goes, and that it is not shown again. */
  readonly words: string;
  readonly label: string;
  readonly value: string;
  readonly onDone?: () => void;
}

/** A word that opens something: it is on the screen this once, to be copied. */
export function ShownOnce({ words, label, value, onDone }: Props) {
  const copy = (): void => {
    navigator.clipboard.writeText(value).then(
      () => toast.success('Copied.'),
      () => toast.error('The browser does not let pages copy here: mark it and copy it.'),
    );
  };
  return (
    <div role="status" className="mt-2 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">
      <p>{words}</p>
      <p className="mt-1.5 flex flex-wrap items-center gap-2">
        <input aria-label={label} readOnly value={value} onFocus={(event) => event.target.select()} className="field-boxed min-w-0 flex-1 font-mono text-xs text-ink" />
        <Button onClick={copy}>Copy</Button>
        {onDone !== undefined && <Button onClick={onDone}>Done</Button>}
      </p>
    </div>
  );
}
