import type { ReusableId } from '@caderno/core/shared';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { useReuse } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf } from '../look/index.ts';

interface Props {
  readonly id: ReusableId;
  /** Its latest version. */
  readonly version: number;
}

/** Users that are pinned to an older version, and their way to the latest, all or some together. */
export function PinnedUsers({ id, version }: Props) {
  const { project, canEdit } = useFrame();
  const [open, setOpen] = useState(false);
  const users = useReuse(project, id).data?.users ?? [];
  const behind = users.flatMap((u) => (typeof u.pinned === 'number' && u.pinned < version && u.state !== 'withdrawn' ? [{ ...u, pinned: u.pinned }] : []));
  if (behind.length === 0) return null;
  return (
    <p className="mt-1 text-ochre-ink">
      {countOf(behind.length, 'user')} {behind.length === 1 ? 'is' : 'are'} pinned to an older version. {canEdit && <TextButton onClick={() => setOpen(true)}>move to v{version}</TextButton>}
      {open && <MoveDialog id={id} version={version} behind={behind} onClose={() => setOpen(false)} />}
    </p>
  );
}

interface MoveProps extends Props {
  readonly behind: readonly { readonly id: ReusableId; readonly title: string; readonly pinned: number }[];
  readonly onClose: () => void;
}

function MoveDialog({ id, version, behind, onClose }: MoveProps) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const chosen = behind.filter((u) => !left.has(u.id));
  const move = async (): Promise<void> => {
    const changed = await changeMany({ of: { ids: chosen.map((u) => u.id) }, done: { kind: 'edit', edit: { kind: 'pins', of: id, version } }, detail: `Moved to v${version} of ${id}` });
    if (changed === null) return;
    toast.success(`${countOf(changed.changed, 'user')} moved to v${version} of ${id}. The journal can undo it.`);
    onClose();
  };
  return (
    <Dialog title={`Move users to v${version} of ${id}`} onClose={onClose}>
      <ul className="max-h-[50vh] overflow-y-auto border-y border-rule text-sm text-ink">
        {behind.map((u) => (
          <li key={u.id} className="border-b border-rule last:border-b-0">
            <label className="flex items-baseline gap-2 py-1.5">
              <input type="checkbox" checked={!left.has(u.id)} onChange={(e) => setLeft(new Set(e.target.checked ? [...left].filter((x) => x !== u.id) : [...left, u.id]))} />
              <span className="w-10 shrink-0 font-mono text-xs text-ink2">{u.id}</span>
              <span className="min-w-0 flex-1">{u.title}</span>
              <Link className="shrink-0 text-xs underline decoration-rule2" to={`${address.versions(project, id)}?from=${u.pinned}&to=${version}`}>
                v{u.pinned} to v{version}: compare
              </Link>
            </label>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={chosen.length === 0} onClick={() => void move()}>
          Move {countOf(chosen.length, 'user')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
      <p className="mt-2 text-xs text-ink2">They stay pinned, to the newer version. It is one entry of the journal.</p>
    </Dialog>
  );
}
