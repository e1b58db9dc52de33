import { roleReaches } from '@caderno/contract';
import { useState } from 'react';
import { useMembers } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog } from '../look/index.ts';

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
  const [some, setSome] = useState(people.length > 0);
  const [chosen, setChosen] = useState(people);
  const analysts = members.filter((m) => m.role === 'analyst');
  const leads = members.filter((m) => roleReaches(m.role, 'lead')).map((m) => m.name);
  const isReady = !some || chosen.length > 0;
  return (
    <Dialog title={`Who changes ${module}`} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isReady) return;
          onKeep(some ? chosen : []);
          onClose();
        }}
      >
        <label className="flex min-h-7 items-center gap-2">
          <input type="radio" name="keepers" checked={!some} onChange={() => setSome(false)} />
          everybody who may edit
        </label>
        <label className="flex min-h-7 items-center gap-2">
          <input type="radio" name="keepers" checked={some} onChange={() => setSome(true)} />
          only these, and leads
        </label>
        <ul aria-label="Who changes it" className="ml-6 max-h-56 overflow-y-auto">
          {analysts.map(({ id, name }) => (
            <li key={id}>
              <label className="flex min-h-7 items-center gap-2">
                <input type="checkbox" disabled={!some} checked={chosen.includes(id)} onChange={(event) => setChosen(event.target.checked ? [...chosen, id] : chosen.filter((p) => p !== id))} />
                {name}
              </label>
            </li>
          ))}
        </ul>
        {analysts.length === 0 && <p className="ml-6 text-ink2">There is nobody in the project who edits and is not a lead.</p>}
        <p className="mt-2 text-xs text-ink2">
          {leads.length === 0 ? 'Leads' : leads.join(', ')} may change everything. Others read it and leave remarks; conditions belong to the modules of their requirements.
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={!isReady}>
            Set
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
