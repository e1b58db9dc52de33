import { useState } from 'react';
import { TextButton } from './Button.tsx';

interface Props {
  readonly label: string;
  readonly placeholder: string;
  /** What giving the reason does. */
  readonly action: string;
  readonly onGive: (reason: string) => void;
  readonly onCancel: () => void;
}

/** Asks for a reason where it is needed: Enter gives it, Escape leaves it. */
export function ReasonForm({ label, placeholder, action, onGive, onCancel }: Props) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-0.5 flex flex-wrap items-center gap-x-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') onGive(reason.trim());
      }}
    >
      <input
        autoFocus
        required
        aria-label={label}
        placeholder={placeholder}
        maxLength={300}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && onCancel()}
        className="field-boxed min-w-40 flex-1 text-ink"
      />
      <TextButton type="submit" disabled={reason.trim() === ''}>
        {action}
      </TextButton>
      <TextButton onClick={onCancel}>Cancel</TextButton>
    </form>
  );
}
