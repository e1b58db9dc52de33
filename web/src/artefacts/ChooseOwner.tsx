import { useMembers } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';

interface Props {
  readonly owner: string;
  readonly canEdit: boolean;
  readonly onChange: (owner: string) => void;
}

/** Whose it is: somebody of the project, nobody, or whoever it was before they left. */
export function ChooseOwner({ owner, canEdit, onChange }: Props) {
  const members = useMembers(useFrame().project).data ?? [];
  const names = [...members.map((m) => m.name), ...(owner === '' || members.some((m) => m.name === owner) ? [] : [owner])];
  return <Choose label="Owner" value={owner} options={[{ value: '', name: 'No owner' }, ...names.map((name) => ({ value: name, name }))]} onChange={onChange} disabled={!canEdit} />;
}
