import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useHeads, useModules } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { IconButton } from '../look/index.ts';
import { NameLine, RenameName, namesInUse, renamedIn, type NameInUse } from './NamesInUse.tsx';

interface Props {
  /** Names with a place of their own. */
  readonly order: readonly string[];
  readonly canEdit: boolean;
  readonly onOrder: (order: readonly string[]) => void;
}

/** The modules of the project: their order is a setting, their names are those that artefacts have. */
export function ModulesEditor({ order, canEdit, onOrder }: Props) {
  const { project } = useFrame();
  const heads = useHeads(project);
  const known = useModules(project);
  const [renaming, setRenaming] = useState<NameInUse | null>(null);
  const used = useMemo(() => namesInUse(heads ?? [], (head) => head.module), [heads]);
  const names = [...order, ...known.filter((name) => !order.includes(name))];
  const lines = names.map((name): NameInUse => used.get(name) ?? { name, ids: [], counts: {} });
  const move = (index: number, by: -1 | 1): void => {
    const next = [...names];
    next.splice(index + by, 0, ...next.splice(index, 1));
    onOrder(next);
  };
  return (
    <div className="mt-2 text-sm">
      {lines.length === 0 && <p className="text-ink2">None yet. A module is a name that requirements, cases, shared steps and data sets have in common.</p>}
      <ul aria-label="Modules">
        {lines.map((named, index) => (
          <NameLine key={named.name} named={named} canEdit={canEdit} onRename={() => setRenaming(named)}>
            {canEdit && (
              <span className="flex">
                <IconButton label={`Move ${named.name} up`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
                <IconButton label={`Move ${named.name} down`} disabled={index === names.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
              </span>
            )}
          </NameLine>
        ))}
      </ul>
      {renaming !== null && <RenameName what="module" named={renaming} others={names} edit={(module) => ({ kind: 'module', module })} onDone={(to) => order.includes(renaming.name) && onOrder(renamedIn(order, renaming.name, to))} onClose={() => setRenaming(null)} />}
    </div>
  );
}
