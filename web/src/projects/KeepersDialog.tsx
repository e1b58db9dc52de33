import { roleReaches } from '@caderno/contract';
import { useMembers } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { AllOrSome } from '../look/index.ts';

interface Props {
  readonly module: string;
  /** Ids of people; empty: everybody who may edit changes it. */
  readonly people: readonly string[];
  readonly onKeep: (people: readonly string[]) => void;
  readonly onClose: () => void;
}

/** Asks who changes what is in a module. Leads do in any case, and readers in none. */
export function KeepersDialog({ module, people, onKeep, onClose }: Props) {
  const members = useMembers(useFrame().project).data ?? [];
  const leads = members.filter((m) => roleReaches(m.role, 'lead')).map((m) => m.name);
  return (
    <AllOrSome
      title={`Who changes ${module}`}
      all="everybody who may edit"
      some="only these, and leads"
      label="Who changes it"
      items={members.filter((m) => m.role === 'analyst')}
      none="There is nobody in the project who edits and is not a lead."
      chosen={people.length === 0 ? null : people}
      onSet={(chosen) => onKeep(chosen ?? [])}
      onClose={onClose}
    >
      {leads.length === 0 ? 'Leads' : leads.join(', ')} may change everything. Others read it and leave remarks; conditions belong to the modules of their requirements.
    </AllOrSome>
  );
}
