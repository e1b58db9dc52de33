import { priorityNamed, usualPriority, type Priority } from '@caderno/core/artefacts';
import { LIMITS } from '@caderno/contract';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useHeads } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, IconButton, TextBox } from '../look/index.ts';
import { useSavePart } from './useSavePart.ts';
import { NameLine, RenameName, namesInUse, renamedIn, type NameInUse } from './NamesInUse.tsx';

interface Props {
  /** The highest first. */
  readonly priorities: readonly Priority[];
  readonly canEdit: boolean;
  readonly onChange: (priorities: readonly Priority[]) => void;
}

/** A project has at least so many: one alone says nothing. */
const FEWEST = 2;

/** The priorities of the project: named, ordered, renamed and joined in all that has them. One in use is joined with another, not taken away. */
export function PrioritiesEditor({ priorities, canEdit, onChange }: Props) {
  const { project } = useFrame();
  const heads = useHeads(project);
  const savePart = useSavePart(project);
  const [renaming, setRenaming] = useState<NameInUse | null>(null);
  const used = useMemo(() => namesInUse(heads ?? [], (head) => ('priority' in head ? head.priority : null)), [heads]);
  const names = [...priorities, ...[...used.keys()].filter((name) => !priorities.includes(name))];
  const lines = names.map((name): NameInUse => used.get(name) ?? { name, ids: [], counts: {} });
  const move = (index: number, by: -1 | 1): void => {
    const next = [...priorities];
    next.splice(index + by, 0, ...next.splice(index, 1));
    onChange(next);
  };
  return (
    <div className="mt-2 text-sm">
      <ul aria-label="Priorities">
        {lines.map((named, index) => {
          const isListed = index < priorities.length;
          return (
            <NameLine key={named.name} named={named} canEdit={canEdit} onRename={() => setRenaming(named)}>
              {canEdit && isListed && (
                <span className="flex">
                  <IconButton label={`Move ${named.name} up`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
                  <IconButton label={`Move ${named.name} down`} disabled={index === priorities.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
                  <IconButton label={named.ids.length > 0 ? `Remove ${named.name}: rename it to another first, as it is in use` : `Remove ${named.name}`} disabled={named.ids.length > 0 || priorities.length <= FEWEST} onClick={() => onChange(priorities.filter((name) => name !== named.name))} icon={<X size={13} aria-hidden="true" />} />
                </span>
              )}
              {!isListed && <span className="text-xs text-ochre-ink">not among them any more</span>}
            </NameLine>
          );
        })}
      </ul>
      {canEdit && <AddPriority priorities={priorities} onAdd={(name) => onChange([...priorities, name])} />}
      <p className="mt-2 text-xs text-ink2">What is new begins with {usualPriority(priorities)}, the one in the middle.</p>
      {renaming !== null && <RenameName what="priority" named={renaming} others={names} edit={(priority) => ({ kind: 'priority', priority })} onDone={(to) => savePart((now) => (now.priorities.includes(renaming.name) ? { priorities: renamedIn(now.priorities, renaming.name, to) } : null))} onClose={() => setRenaming(null)} />}
    </div>
  );
}

function AddPriority({ priorities, onAdd }: { readonly priorities: readonly Priority[]; readonly onAdd: (name: Priority) => void }) {
  const [name, setName] = useState('');
  const isThere = priorityNamed(name, priorities) !== null;
  const isFull = priorities.length >= LIMITS.priorities;
  return (
    <form
      className="mt-2 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(name.trim());
        setName('');
      }}
    >
      <TextBox aria-label="Another priority" placeholder="Another priority" value={name} maxLength={60} disabled={isFull} onChange={setName} className="w-56" />
      <Button type="submit" disabled={name.trim() === '' || isThere || isFull}>Add</Button>
      {isThere && <span role="status" className="text-xs text-ochre-ink">It is there already.</span>}
    </form>
  );
}
