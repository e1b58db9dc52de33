import { SECRET_MASK, type Configuration, type Constant } from '@caderno/core/shared';
import { Eye, EyeOff } from 'lucide-react';
import { useState } from 'react';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { IconButton, TextBox } from '../look/index.ts';

interface Props {
  readonly constant: Constant;
  /** Null: the usual value. */
  readonly configuration: Configuration | null;
  readonly canEdit: boolean;
  readonly onChange: (value: string) => void;
}

/** The value of a constant, usual or in a configuration. That of a secret one is typed anew, or revealed to a lead. */
export function ConstantValue({ constant, configuration, canEdit, onChange }: Props) {
  const { project, canLead } = useFrame();
  const [revealed, setRevealed] = useState<string | null>(null);
  const value = configuration === null ? constant.value : (constant.others[configuration.id] ?? '');
  const isKept = constant.secret && value === SECRET_MASK;
  const name = configuration === null ? constant.name : `${constant.name} in ${configuration.name}`;
  const usual = constant.secret ? '' : constant.value;
  const reveal = (): void => {
    if (revealed !== null) return setRevealed(null);
    call('revealConstant', { params: { project, constant: constant.id }, body: { configuration: configuration?.id ?? null } }).then((answer) => setRevealed(answer.value), tellFailure);
  };
  return (
    <span className="flex min-w-0 items-center gap-1">
      <TextBox
        aria-label={`Value of ${name}`}
        type={constant.secret && revealed === null ? 'password' : 'text'}
        autoComplete="off"
        readOnly={!canEdit || revealed !== null}
        value={revealed ?? (isKept ? '' : value)}
        maxLength={2_000}
        placeholder={isKept ? `${SECRET_MASK} kept; type to replace it` : configuration === null ? '' : usual}
        onChange={onChange}
        className="w-full min-w-0 font-mono text-xs"
      />
      {isKept && canLead && (
        <IconButton label={revealed === null ? `Show the value of ${name}; the journal tells it` : `Hide the value of ${name}`} title={revealed === null ? 'Show it; the journal of people tells that you did' : 'Hide it'} onClick={reveal} icon={revealed === null ? <Eye size={14} aria-hidden="true" /> : <EyeOff size={14} aria-hidden="true" />} />
      )}
    </span>
  );
}
