import { SHORTEST_PASSWORD } from '@caderno/contract';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { Field } from './Field.tsx';

interface Props {
  readonly label: string;
  readonly error: boolean;
  readonly field: UseFormRegisterReturn;
}

/** A password that is chosen: the same words wherever one is. */
export function NewPasswordField({ label, error, field }: Props) {
  return (
    <Field
      label={label}
      type="password"
      autoComplete="new-password"
      hint={`At least ${SHORTEST_PASSWORD} characters, and none of the usual ones.`}
      error={error ? `must have at least ${SHORTEST_PASSWORD} characters` : undefined}
      {...field}
    />
  );
}
