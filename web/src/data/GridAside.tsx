import { isParameterName, type Parameter } from '@caderno/core/cases';
import { useState } from 'react';
import { TextButton, countOf, locale, TextBox } from '../look/index.ts';

interface Props {
  readonly isKept: boolean;
  readonly seen: number;
  readonly all: number;
  readonly hidden: ReadonlySet<string>;
  readonly parameters: readonly Parameter[];
  readonly canEdit: boolean;
  /** Null: nothing is filtered, or that is not decided here. */
  readonly onRunFiltered: (() => void) | null;
  readonly onAsKept: () => void;
  readonly onAgain: () => void;
  readonly onShow: () => void;
  readonly onAddColumn: (name: string) => void;
  /** Null: there is a column for it already. */
  readonly onDescribe: (() => void) | null;
}

/** What is not seen of the table, and the way to more columns. */
export function GridAside({ isKept, seen, all, hidden, parameters, canEdit, onRunFiltered, onAsKept, onAgain, onShow, onAddColumn, onDescribe }: Props) {
  const [name, setName] = useState<string | null>(null);
  const away = parameters.filter((p) => hidden.has(p.id));
  if (!canEdit && isKept && away.length === 0) return null;
  const add = (): void => {
    if (name !== null && isParameterName(name.trim()) && !parameters.some((p) => p.name === name.trim())) onAddColumn(name.trim());
    setName(null);
  };
  return (
    <p className="mt-1 flex min-h-6 flex-wrap items-baseline gap-x-3.5 text-xs text-ink2">
      {canEdit &&
        (name === null ? (
          <TextButton onClick={() => setName('')}>add a column</TextButton>
        ) : (
          <TextBox
            autoFocus
            aria-label="Name of the new column"
            placeholder="its name, then Enter"
            maxLength={80}
            value={name}
            onChange={setName}
            onBlur={add}
            onKeyDown={(e) => {
              if (e.key === 'Enter') add();
              if (e.key === 'Escape') setName(null);
            }}
            className="h-6 w-40 font-mono text-xs"
          />
        ))}
      {canEdit && onDescribe !== null && <TextButton onClick={onDescribe}>say what each is for</TextButton>}
      {!isKept && (
        <span>
          {seen === all ? 'in another order than it is kept' : `${seen.toLocaleString(locale())} of ${countOf(all, 'row')}`}: <TextButton onClick={onAsKept}>all, as kept</TextButton> · <TextButton onClick={onAgain}>put in order again</TextButton>
          {onRunFiltered !== null && (
            <>
              {' '}
              · <TextButton onClick={onRunFiltered}>run what passes the filter</TextButton>
            </>
          )}
        </span>
      )}
      {away.length > 0 && (
        <span>
          {countOf(away.length, 'column')} hidden: <TextButton onClick={onShow}>show {away.map((p) => `<${p.name}>`).slice(0, 4).join(' ')}</TextButton>
        </span>
      )}
    </p>
  );
}
