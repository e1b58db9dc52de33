import { ARTEFACT_KINDS, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { LIMITS, type ChangeMany, type Summary } from '@caderno/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, KIND_NAME, TextButton, countOf, locale, TextBox } from '../look/index.ts';

/** A name that artefacts have in common: a module, a tag, a priority. */
export interface NameInUse {
  readonly name: string;
  readonly ids: readonly ArtefactId[];
  readonly counts: Readonly<Partial<Record<ArtefactKind, number>>>;
}

/** `12 requirements, 3 cases`. */
export function usedIn({ counts }: NameInUse): string {
  return ARTEFACT_KINDS.flatMap((kind) => (counts[kind] === undefined ? [] : countOf(counts[kind], ...KIND_NAME[kind]))).join(', ') || 'not in use';
}

interface RenameProps {
  /** `module`, `tag`. */
  readonly what: string;
  readonly named: NameInUse;
  readonly others: readonly string[];
  /** What is done with each that has it. */
  readonly edit: (to: string) => Extract<ChangeMany['done'], { kind: 'edit' }>['edit'];
  readonly onDone?: (to: string) => void;
  readonly onClose: () => void;
}

/** Another name for all that have one; a name that is there joins the two. One entry of the journal. */
export function RenameName({ what, named, others, edit, onDone, onClose }: RenameProps) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const [to, setTo] = useState(named.name);
  const [busy, setBusy] = useState(false);
  // Two that differ only in their capitals would be one by mistake.
  const there = others.find((other) => other !== named.name && other.toLowerCase() === to.trim().toLowerCase());
  const wanted = there ?? to.trim();
  const joins = there !== undefined;
  const rename = async (): Promise<void> => {
    setBusy(true);
    const done = named.ids.length === 0 || (await changeMany({ of: { ids: [...named.ids] }, done: { kind: 'edit', edit: edit(wanted) }, detail: `${what} “${named.name}” ${joins ? 'joined with' : 'renamed to'} “${wanted}”`.slice(0, LIMITS.title) })) !== null;
    setBusy(false);
    if (!done) return;
    if (named.ids.length > 0) toast.success(`${joins ? 'Joined' : 'Renamed'} in ${countOf(named.ids.length, 'artefact')}. The journal can undo it.`);
    onDone?.(wanted);
    onClose();
  };
  return (
    <Dialog title={`Rename the ${what} “${named.name}”`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void rename();
        }}
      >
        <TextBox autoFocus aria-label="New name" value={to} list="names-in-use" maxLength={LIMITS.name} onChange={setTo} onFocus={(event) => event.target.select()} className="w-full" />
        <datalist id="names-in-use">
          {others.map((other) => (
            <option key={other} value={other} />
          ))}
        </datalist>
        <p role="status" className="mt-2 text-sm text-ink2">
          {usedIn(named)}.{named.ids.length > LIMITS.many && ` More than ${LIMITS.many.toLocaleString(locale())} cannot be changed at once: narrow a list by ${what}:, and change it in parts.`}{joins && ` There is “${wanted}” already: the two become one.`}
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy || wanted === '' || wanted === named.name || named.ids.length > LIMITS.many}>
            {busy ? 'Renaming …' : joins ? 'Join' : 'Rename'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** Which artefacts have a name each, and how many of each kind; `nameOf`: of one, null where it has none. */
export function namesInUse(heads: readonly Summary[], nameOf: (head: Summary) => string | null): Map<string, NameInUse> {
  const used = new Map<string, { name: string; ids: ArtefactId[]; counts: Partial<Record<ArtefactKind, number>> }>();
  for (const head of heads) {
    const name = nameOf(head);
    if (name === null || name === '') continue;
    const there = used.get(name) ?? { name, ids: [], counts: {} };
    used.set(name, there);
    there.ids.push(head.id);
    there.counts[head.kind] = (there.counts[head.kind] ?? 0) + 1;
  }
  return used;
}

/** Names in the order of a list, where one has its place once: what is joined with another takes that one's. */
export function renamedIn(order: readonly string[], from: string, to: string): string[] {
  return order.includes(to) ? order.filter((name) => name !== from) : order.map((name) => (name === from ? to : name));
}

/** The line of a name: how much has it, and what can be done. */
export function NameLine({ named, canEdit, onRename, children }: { readonly named: NameInUse; readonly canEdit: boolean; readonly onRename: () => void; readonly children?: React.ReactNode }) {
  return (
    <li className="flex min-h-9 items-center gap-3 border-t border-rule">
      <span className="w-64 truncate" title={named.name}>{named.name}</span>
      <span className="min-w-0 flex-1 truncate text-xs text-ink2">{usedIn(named)}</span>
      {canEdit && (
        <TextButton className="text-xs" onClick={onRename}>
          Rename<span className="sr-only"> {named.name}</span>
        </TextButton>
      )}
      {children}
    </li>
  );
}
