import type { OwnField } from '@caderno/core/fields';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { TextArea } from '../look/index.ts';

/** The choices of a field, a line each. A line that is changed keeps what it is: whoever chose it has the new name. */
export function ChoicesEditor({ field, canEdit, onChange }: { readonly field: OwnField; readonly canEdit: boolean; readonly onChange: (choices: OwnField['choices']) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange(rewritten(field.choices, typed));
    setTyped(null);
  };
  return (
    <TextArea
      aria-label={`Choices of ${field.name}, one a line`}
      placeholder="one a line"
      rows={3}
      readOnly={!canEdit}
      value={typed ?? field.choices.map((c) => c.name).join('\n')}
      onChange={setTyped}
      onBlur={leave}
      className="w-full py-1 leading-5 [field-sizing:content]"
    />
  );
}

/**
 * Choices after their lines were edited. A name that was there is the same choice, wherever it stands now. Where as many
 * lines are new as old ones are gone, each new one is the renamed old one in the same turn.
 */
export function rewritten(before: OwnField['choices'], text: string): OwnField['choices'] {
  const names = [...new Map(text.split('\n').map((line) => line.trim().slice(0, LIMITS.name)).filter(Boolean).map((name) => [name.toLowerCase(), name])).values()].slice(0, LIMITS.choices);
  const byName = new Map(before.map((c) => [c.name.toLowerCase(), c]));
  const isThere = (name: string): boolean => byName.has(name.toLowerCase());
  const gone = before.filter((c) => !names.some((name) => name.toLowerCase() === c.name.toLowerCase()));
  const fresh = names.filter((name) => !isThere(name));
  const renamed = gone.length === fresh.length ? gone : [];
  return names.map((name) => ({ id: byName.get(name.toLowerCase())?.id ?? renamed[fresh.indexOf(name)]?.id ?? crypto.randomUUID().slice(0, 8), name }));
}
