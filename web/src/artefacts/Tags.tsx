import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { TextInput } from './TextInput.tsx';

interface Props {
  readonly tags: readonly string[];
  readonly canEdit: boolean;
  readonly onChange: (tags: string[]) => void;
}

/** Tags are typed with commas between; they become tags when one leaves the field. */
export function Tags({ tags, canEdit, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange([...new Set(typed.split(',').map((t) => t.trim()).filter(Boolean))].slice(0, LIMITS.tags));
    setTyped(null);
  };
  return (
    <span onBlur={leave}>
      <TextInput label="Tags" value={typed ?? tags.join(', ')} readOnly={!canEdit} onChange={setTyped} />
    </span>
  );
}
