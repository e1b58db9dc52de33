import { keepersRenamed, keepersWords, withKeepers, type Keepers, type ProjectSettings } from '@caderno/contract';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useHeads, useMembers, useModules } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { IconButton, TextButton } from '../look/index.ts';
import { KeepersDialog } from './KeepersDialog.tsx';
import { useSavePart } from './useSavePart.ts';
import { NameLine, RenameName, namesInUse, renamedIn, type NameInUse } from './NamesInUse.tsx';

interface Props {
  /** Names with a place of their own. */
  readonly order: readonly string[];
  readonly keepers: readonly Keepers[];
  readonly canEdit: boolean;
  readonly canLead: boolean;
  readonly onChange: (part: Partial<Pick<ProjectSettings, 'modules' | 'keepers'>>) => void;
}

const NOBODY: readonly string[] = [];

/** The modules of the project: their order is a setting, their names are those that artefacts have. */
export function ModulesEditor({ order, keepers, canEdit, canLead, onChange }: Props) {
  const { project } = useFrame();
  const heads = useHeads(project);
  const known = useModules(project);
  const [renaming, setRenaming] = useState<NameInUse | null>(null);
  const [asking, setAsking] = useState<string | null>(null);
  const savePart = useSavePart(project);
  const peopleOf = (module: string): readonly string[] => keepers.find((k) => k.module === module)?.people ?? NOBODY;
  const used = useMemo(() => namesInUse(heads ?? [], (head) => head.module), [heads]);
  const names = [...order, ...known.filter((name) => !order.includes(name))];
  const lines = names.map((name): NameInUse => used.get(name) ?? { name, ids: [], counts: {} });
  const move = (index: number, by: -1 | 1): void => {
    const next = [...names];
    next.splice(index + by, 0, ...next.splice(index, 1));
    onChange({ modules: next });
  };
  return (
    <div className="mt-2 text-sm">
      {lines.length === 0 && <p className="text-ink2">None yet. A module is a name that requirements, cases, shared steps and data sets have in common.</p>}
      <ul aria-label="Modules">
        {lines.map((named, index) => (
          <NameLine key={named.name} named={named} canEdit={canEdit && (canLead || peopleOf(named.name).length === 0)} onRename={() => setRenaming(named)}>
            <WhoChanges module={named.name} people={peopleOf(named.name)} onAsk={canLead ? () => setAsking(named.name) : null} />
            {canEdit && (
              <span className="flex">
                <IconButton label={`Move ${named.name} up`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
                <IconButton label={`Move ${named.name} down`} disabled={index === names.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
              </span>
            )}
          </NameLine>
        ))}
      </ul>
      {renaming !== null && <RenameName what="module" named={renaming} others={names} edit={(module) => ({ kind: 'module', module })} onDone={(to) => savePart((now) => renamedSettings(now, renaming.name, to))} onClose={() => setRenaming(null)} />}
      {asking !== null && <KeepersDialog module={asking} people={peopleOf(asking)} onKeep={(people) => onChange({ keepers: withKeepers(keepers, asking, people) })} onClose={() => setAsking(null)} />}
    </div>
  );
}

/** The place of a module and who keeps it, under its new name. */
function renamedSettings({ modules, keepers }: ProjectSettings, from: string, to: string): Partial<ProjectSettings> | null {
  const isKept = keepers.some((k) => k.module === from);
  return modules.includes(from) || isKept ? { modules: renamedIn(modules, from, to), keepers: keepersRenamed(keepers, from, to) } : null;
}

/** Who changes what is in a module, in a word; whoever leads the project can say otherwise. */
function WhoChanges({ module, people, onAsk }: { readonly module: string; readonly people: readonly string[]; readonly onAsk: (() => void) | null }) {
  const { project } = useFrame();
  const members = useMembers(project).data ?? [];
  const names = members.filter((m) => people.includes(m.id)).map((m) => m.name);
  const words = people.length === 0 ? 'changed by everybody' : `changed by ${keepersWords(names)} only`;
  if (onAsk === null) return people.length === 0 ? null : <span className="max-w-64 truncate text-xs text-ink2" title={words}>{words}</span>;
  return (
    <TextButton className="max-w-64 truncate text-xs" title={words} onClick={onAsk}>
      {words}
      <span className="sr-only">: {module}</span>
    </TextButton>
  );
}
