import { useId, type InputHTMLAttributes } from 'react';

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string;
  readonly hint?: string;
  readonly error?: string | undefined;
}

/** A labelled field of a form, with its error beneath. */
export function Field({ label, hint, error, ...input }: Props) {
  const id = useId();
  return (
    <div className="mt-3">
      <label htmlFor={id} className="block text-sm font-semibold">
        {label}
      </label>
      <input id={id} {...input} aria-invalid={error !== undefined} aria-describedby={`${id}-note`} className="field-boxed mt-1 w-full" />
      <p id={`${id}-note`} className={`mt-1 text-xs ${error === undefined ? 'text-ink2' : 'text-brick'}`}>
        {error === undefined ? hint : `${label} ${error}.`}
      </p>
    </div>
  );
}
