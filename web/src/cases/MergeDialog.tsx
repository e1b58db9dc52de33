import type { CaseId } from '@caderno/core/artefacts';
import { MERGED_STEPS, mergeCases, saySame, withCallsMoved, type CaseContent, type MergedSteps } from '@caderno/core/cases';
import { withRunsSettled, type DataSetContent } from '@caderno/core/dataSets';
import { keyOfData, type Library } from '@caderno/core/shared';
import { withMemberMoved } from '@caderno/core/suites';
import type { Artefact, Write } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useArtefact, useLibrary, useReuse, useSummaries } from '../api/index.ts';
import { PickArtefact, useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf, Answer } from '../look/index.ts';
import { useSuitesOf } from '../suiteMembers/index.ts';
import type { CaseAt } from './CloneDialog.tsx';

interface Props {
  readonly kept: CaseAt;
  /** The one that goes, where it is known already. */
  readonly gone?: CaseId;
  readonly onClose: () => void;
}

/** Makes one case of two; the other is withdrawn, and what called it, or had it as a member, has the one that is kept. */
export function MergeDialog({ kept, gone, onClose }: Props) {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case').data ?? [];
  const [picked, setPicked] = useState<CaseId | null>(gone ?? null);
  return (
    <Dialog title={`Merge another case into ${kept.id}`} onClose={onClose} wide>
      {picked === null ? (
        <>
          <p className="mb-2 text-sm text-ink2">{kept.id} stays. The other gives it its rows and links, and is withdrawn.</p>
          <PickArtefact label="The case that goes" placeholder="C-… or words of a title" offered={cases.filter((c) => c.id !== kept.id)} onPick={setPicked} />
        </>
      ) : (
        <Merging kept={kept} id={picked} onClose={onClose} />
      )}
    </Dialog>
  );
}

function Merging({ kept, id, onClose }: { readonly kept: CaseAt; readonly id: CaseId; readonly onClose: () => void }) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const gone = useArtefact(project, 'case', id).data;
  const callers = (useReuse(project, id).data?.users ?? []).filter((u) => u.distance === 1 && u.pinned === null && u.state !== 'withdrawn');
  // Of those that a rule fills the one that goes falls out by itself.
  const suites = useSuitesOf(project, id).filter((s) => s.members.some((m) => !m.byRule && typeof m.pinned !== 'number'));
  const [steps, setSteps] = useState<MergedSteps | null>(null);
  const [made] = useState(() => Array.from({ length: 4_000 }, () => crypto.randomUUID().slice(0, 8)));
  const data = gone?.content.data ?? null;
  const library = useLibrary(project, data === null ? [] : [keyOfData(data)]).data;
  if (gone === undefined || (data !== null && library === undefined)) return <p className="text-sm text-ink2">Reading {id} …</p>;
  const same = saySame(kept.content.steps, gone.content.steps);
  const how = steps ?? (same ? 'kept' : 'both');
  const ids = made.values();
  const merged = mergeCases(kept, { id, content: withRunsSettled(gone.content, dataSetOf(data, library)) }, how, () => ids.next().value ?? crypto.randomUUID().slice(0, 8));
  const run = async (): Promise<void> => {
    try {
      const users = await Promise.all([...callers, ...suites].map((u) => call('readArtefact', { params: { project, id: u.id } })));
      const changed: Write['changed'] = [{ kind: 'case', id: kept.id, version: kept.version, content: merged.content }, ...users.flatMap((user) => movedCaller(user, id, kept.id, merged.rows))];
      if ((await write({ changed, withdrawn: [id], detail: `${id} merged into ${kept.id}` })) === null) return;
      toast.success(`${id} is part of ${kept.id} now, and withdrawn. The journal can undo it.`);
      onClose();
      await navigate(address.cases(project, kept.id));
    } catch (error) {
      tellFailure(error);
    }
  };
  const more = { rows: merged.content.rows.length - kept.content.rows.length, parameters: merged.content.parameters.length - kept.content.parameters.length, covers: merged.content.covers.length - kept.content.covers.length };
  return (
    <div className="text-sm">
      <p>
        <span className="font-mono text-xs text-ink2">{id}</span> <strong>{gone.content.title}</strong>
      </p>
      <fieldset className="mt-3">
        <legend className="font-semibold">{same ? 'The steps of both say the same.' : 'The steps of the two differ.'}</legend>
        {MERGED_STEPS.map((choice) => (
          <Answer key={choice} name="steps" checked={how === choice} onPick={() => setSteps(choice)}>
            {choice === 'kept' ? `only those of ${kept.id}${same ? '' : `: what the steps of ${id} say is left out`}` : `those of ${id} after them`}
          </Answer>
        ))}
      </fieldset>
      {!same && (
        <div className="mt-2 grid max-h-[34vh] grid-cols-2 gap-5 overflow-y-auto border-y border-rule py-2 text-xs">
          {[{ of: kept.id, list: kept.content.steps }, { of: id, list: gone.content.steps }].map(({ of, list }) => (
            <ol key={of} className="list-decimal pl-5" aria-label={`Steps of ${of}`}>
              {list.map((s) => (
                <li key={s.id}>{s.kind === 'step' ? `${s.action}${s.expected === '' ? '' : ` ⇒ ${s.expected}`}` : `uses ${s.kind === 'shared' ? s.shared : s.case}`}</li>
              ))}
            </ol>
          ))}
        </div>
      )}
      <p className="mt-3">
        {gainsWords(kept.id, more)}
        {callers.length > 0 && ` ${countOf(callers.length, 'caller')} of ${id} will call ${kept.id} instead: ${callers.map((c) => c.id).join(', ')}.`}
        {suites.length > 0 && ` ${suites.map((s) => s.id).join(', ')} will have ${kept.id} instead of ${id}.`}
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="accent" onClick={() => void run()}>
          Merge
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
      <p className="mt-2 text-xs text-ink2">What you typed in {kept.id} is saved along with it. It is one entry of the journal.</p>
    </div>
  );
}

function gainsWords(id: CaseId, { rows, parameters, covers }: { readonly rows: number; readonly parameters: number; readonly covers: number }): string {
  const gains = [rows > 0 ? countOf(rows, 'row') : '', parameters > 0 ? countOf(parameters, 'parameter') : '', covers > 0 ? `${countOf(covers, 'link')} to conditions` : ''].filter(Boolean);
  return gains.length === 0 ? `${id} has all its rows and links already.` : `${id} gains ${gains.join(', ')}.`;
}

/** Null: it takes no rows of one, or the data set is gone. */
function dataSetOf(data: CaseContent['data'], library: Library | undefined): DataSetContent | null {
  const used = data === null ? undefined : library?.get(keyOfData(data));
  return used?.kind === 'dataSet' ? used.content : null;
}

function movedCaller(user: Artefact, from: CaseId, to: CaseId, rows: ReturnType<typeof mergeCases>['rows']): Write['changed'] {
  if (user.kind === 'case' && user.summary.id !== to) return [{ kind: 'case', id: user.summary.id, version: user.summary.version, content: { ...user.content, steps: withCallsMoved(user.content.steps, from, to, rows) } }];
  if (user.kind === 'shared') return [{ kind: 'shared', id: user.summary.id, version: user.summary.version, content: { ...user.content, steps: withCallsMoved(user.content.steps, from, to, rows) } }];
  if (user.kind === 'suite') return [{ kind: 'suite', id: user.summary.id, version: user.summary.version, content: { ...user.content, entries: withMemberMoved(user.content.entries, from, to) } }];
  return [];
}
