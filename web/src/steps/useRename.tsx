import type { ParameterId, Parameter } from '@caderno/core/cases';
import type { RenameHindrance } from '@caderno/core/shared';
import type { RenamePlan } from '@caderno/contract';
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';
import type { Owner } from './TakeOutDialog.tsx';

interface Asked {
  readonly id: ParameterId;
  readonly from: string;
  readonly to: string;
  readonly plan: RenamePlan;
}

/**
 * Renames a parameter: at once when nothing else knows it, otherwise after a look at all that would change with it.
 * `renameHere` renames it on the page alone.
 */
export function useRename(owner: Owner, renameHere: (id: ParameterId, name: string) => void): { readonly rename: (parameter: Parameter, name: string) => void; readonly dialog: ReactNode } {
  const { project } = useFrame();
  const refresh = useRefresh(project);
  const [asked, setAsked] = useState<Asked | null>(null);
  const latest = useRef(owner);
  useEffect(() => {
    latest.current = owner;
  });
  const order = useCallback((from: string, to: string, apply: boolean) => call('renameParameter', { params: { project }, body: { owner: latest.current, from, to, apply } }, apply ? { commandId: crypto.randomUUID() } : {}), [project]);
  const rename = useCallback(
    async ({ id, name: from }: Parameter, to: string) => {
      if (from === to) return;
      try {
        const plan = await order(from, to, false);
        if (plan.renamed.length === 1 && plan.hindrances.length === 0) renameHere(id, to);
        else setAsked({ id, from, to, plan });
      } catch (error) {
        tellFailure(error);
      }
    },
    [order, renameHere],
  );
  const everywhere = async ({ from, to }: Asked): Promise<void> => {
    try {
      const { renamed, hindrances } = await order(from, to, true);
      if (hindrances.length > 0) throw new Error(`The way was clear a moment ago: ${hindrances[0]?.code ?? ''}`);
      await refresh();
      toast.success(`<${from}> is <${to}> now in ${countOf(renamed.length, 'artefact')}. The journal can undo it.`);
      setAsked(null);
    } catch (error) {
      tellFailure(error);
    }
  };
  const dialog = asked !== null && (
    <RenameDialog
      owner={owner}
      asked={asked}
      onEverywhere={() => void everywhere(asked)}
      onHere={() => {
        renameHere(asked.id, asked.to);
        setAsked(null);
      }}
      onClose={() => setAsked(null)}
    />
  );
  return { rename: useCallback((parameter, name) => void rename(parameter, name), [rename]), dialog };
}

interface DialogProps {
  readonly owner: Owner;
  readonly asked: Asked;
  readonly onEverywhere: () => void;
  readonly onHere: () => void;
  readonly onClose: () => void;
}

function RenameDialog({ owner, asked: { from, to, plan }, onEverywhere, onHere, onClose }: DialogProps) {
  const { project } = useFrame();
  const hindered = plan.hindrances.length > 0;
  return (
    <Dialog title={`Rename <${from}> to <${to}>`} onClose={onClose}>
      {hindered ? (
        <>
          <p className="text-sm">It cannot be renamed everywhere without changing what is executed:</p>
          <ul className="mt-2 list-disc pl-5 text-sm text-brick">
            {plan.hindrances.map((hindrance, i) => (
              <li key={i}>{hindranceSentence(hindrance)}</li>
            ))}
          </ul>
        </>
      ) : (
        <>
          <p className="text-sm">It is known by its name in what uses {owner.id}, or in what {owner.id} uses. All of it changes together, so that every instance stays as it is:</p>
          <ul className="mt-2 max-h-[40vh] overflow-y-auto border-y border-rule text-sm">
            {plan.renamed.map((r) => (
              <li key={r.id} className="flex items-baseline gap-2 border-b border-rule py-1.5 last:border-b-0">
                <Link className="w-10 shrink-0 font-mono text-xs underline decoration-rule2" to={address.artefact(project, r.id)}>
                  {r.id}
                </Link>
                <span className="min-w-0 flex-1">{r.title}</span>
                <span className="shrink-0 text-xs text-ink2">{r.hasIt ? countOf(r.places, 'place') : 'gives it an argument'}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        {!hindered && (
          <Button look="accent" onClick={onEverywhere}>
            Rename everywhere
          </Button>
        )}
        <Button onClick={onHere}>Only in {owner.id}</Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
      <p className="mt-2 text-xs text-ink2">
        {hindered ? '' : `What you typed in ${owner.id} is saved along with it. `}Only in {owner.id}: what handed it on by its name no longer does, and arguments given to it are marked where they stand.
      </p>
    </Dialog>
  );
}

function hindranceSentence(hindrance: RenameHindrance): string {
  switch (hindrance.code) {
    case 'name_invalid':
      return `“${hindrance.name}” cannot be a name: it begins with a letter or digit and has no brackets.`;
    case 'name_in_use':
      return `<${hindrance.name}> means something in ${hindrance.id} already. Choose another name, or rename that one first.`;
    case 'name_of_constant':
      return `<${hindrance.name}> is a constant of the project, which stands in where a value is missing. Choose another name.`;
    case 'pinned_takes_it':
      return `${hindrance.id} ${hindrance.version === 'agreed' ? `follows the agreed version of ${hindrance.used}` : `is pinned to v${hindrance.version} of ${hindrance.used}`}, which takes it by its name. Give it an argument there, or let it follow the latest.`;
  }
}
