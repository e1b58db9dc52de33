import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { isPlainStep, type CaseContent, type Step, type StepId, type Written } from '@caderno/core/cases';
import { EMPTY_SHARED, findRuns, takeOut, type FoundRun, type SharedContent } from '@caderno/core/shared';
import type { TakeOut } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useSummaries, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf, TextBox, Labelled } from '../look/index.ts';
import { newStepId } from './stepEdits.ts';
import { WordDiff } from '../versions/index.ts';

/** What steps are taken out of, as it stands on the page. */
export type Owner = { readonly kind: 'case'; readonly id: CaseId; readonly version: number; readonly content: CaseContent } | { readonly kind: 'shared'; readonly id: SharedId; readonly version: number; readonly content: SharedContent };

interface Props {
  readonly owner: Owner;
  readonly steps: readonly StepId[];
  readonly onClose: () => void;
}

type User = TakeOut['users'][number];

/** Takes a run of steps out into shared steps, here and where the same run stands elsewhere, after a look at both; one entry of the journal. */
export function TakeOutDialog({ owner, steps, onClose }: Props) {
  const { project } = useFrame();
  const client = useQueryClient();
  const refresh = useRefresh(project);
  const [title, setTitle] = useState('');
  const [taken] = useState(() => takeOut(owner.content as Written, steps));
  const runs = useRuns(owner, taken?.steps ?? []);
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  if (taken === null) return null;
  // Those that say the same are taken along unless one says otherwise; nearly the same ones only when one says so.
  const along = chosen ?? new Set(runs.filter((r) => r.kind === 'same').map(runKey));
  const run = async (): Promise<void> => {
    const shared: SharedContent = { ...EMPTY_SHARED, title: title.trim(), module: owner.content.module, steps: taken.steps, parameters: taken.parameters };
    const uses = [{ at: taken.at, step: newStepId(), arguments: [] }];
    const { id, version } = owner;
    const first: User = owner.kind === 'case' ? { kind: owner.kind, id: owner.id, version, content: { ...owner.content, steps: taken.rest }, uses } : { kind: owner.kind, id: owner.id, version, content: { ...owner.content, steps: taken.rest }, uses };
    try {
      const others = await Promise.all(byCase(runs.filter((r) => along.has(runKey(r)))).map((found) => replaced(project, found, taken.steps)));
      const { made } = await call('takeOut', { params: { project }, body: { shared, users: [first, ...others] } }, { commandId: crypto.randomUUID() });
      await refresh();
      toast.success(`${made.join('')} “${shared.title}” was made of ${countOf(taken.steps.length, 'step')} of ${id}${others.length > 0 ? `, and stands in ${countOf(others.length, 'other case')} as well` : ''}. The journal can undo it.`);
      onClose();
    } catch (error) {
      if (!(error instanceof RunMoved)) return tellFailure(error);
      await client.invalidateQueries({ queryKey: [project, 'list', 'runs'] });
      toast.error(`The steps of ${error.id} were changed in the meantime. Nothing was taken out; look at what stands there now and take out again.`);
    }
  };
  return (
    <Dialog title={`Take ${countOf(taken.steps.length, 'step')} out into shared steps`} onClose={onClose} wide={runs.length > 0}>
      <Labelled label="What they do, in a few words" className="text-sm">
        <TextBox autoFocus className="w-full" value={title} maxLength={300} placeholder="What the steps do together" onChange={setTitle} onKeyDown={(e) => e.key === 'Enter' && title.trim() !== '' && void run()} />
      </Labelled>
      <ol className="mt-3 list-decimal border-l-2 border-dashed border-ink2 bg-page2 py-2 pl-9 pr-3 text-sm">
        {taken.steps.map((step) => (
          <li key={step.id}>{step.kind === 'step' ? step.action || 'an empty step' : `uses ${step.kind === 'shared' ? step.shared : step.case}`}</li>
        ))}
      </ol>
      <p className="mt-2 text-sm text-ink2">
        {taken.parameters.length === 0 ? 'They use no parameters.' : 'Their parameters are those of the same names here, so that nothing changes: '}
        {taken.parameters.map((p) => (
          <span key={p.id} className="cad-parameter mr-1">{`<${p.name}>`}</span>
        ))}
      </p>
      {runs.length > 0 && <Elsewhere runs={runs} steps={taken.steps} along={along} onChange={setChosen} />}
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={title.trim() === ''} onClick={() => void run()}>
          Take out
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
      <p className="mt-2 text-xs text-ink2">What you typed in {owner.id} is saved along with it.</p>
    </Dialog>
  );
}

/** Where the same run stands, or nearly the same. */
function useRuns(owner: Owner, steps: readonly Step[]): readonly FoundRun[] {
  const { project } = useFrame();
  const except = owner.kind === 'case' ? owner.id : null;
  return (
    useQuery({
      queryKey: [project, 'list', 'runs', owner.id, JSON.stringify(steps)],
      queryFn: ({ signal }) => call('findRuns', { params: { project }, body: { steps: [...steps], except } }, { signal }),
      enabled: steps.length > 0 && steps.every(isPlainStep),
    }).data ?? []
  );
}

function runKey({ id, steps }: FoundRun): string {
  return `${id} ${steps[0] ?? ''}`;
}

interface ElsewhereProps {
  readonly runs: readonly FoundRun[];
  readonly steps: readonly Step[];
  readonly along: ReadonlySet<string>;
  readonly onChange: (along: ReadonlySet<string>) => void;
}

function Elsewhere({ runs, steps, along, onChange }: ElsewhereProps) {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case').data ?? [];
  const toggle = (run: FoundRun, on: boolean): void => onChange(new Set(on ? [...along, runKey(run)] : [...along].filter((k) => k !== runKey(run))));
  return (
    <fieldset className="mt-4">
      <legend className="text-sm font-semibold">The same run stands elsewhere too. Use the shared steps there as well?</legend>
      <ul className="mt-1 max-h-[34vh] overflow-y-auto text-sm">
        {runs.map((found) => (
          <li key={runKey(found)} className="border-t border-rule py-1.5">
            <label className="flex items-baseline gap-2">
              <input type="checkbox" checked={along.has(runKey(found))} onChange={(e) => toggle(found, e.target.checked)} />
              <span className="font-mono text-xs text-ink2">{found.id}</span>
              <span className="min-w-0 flex-1">{cases.find((c) => c.id === found.id)?.title}</span>
              <span className="text-xs text-ink2">{found.kind === 'same' ? 'the same' : 'nearly the same: its words would change'}</span>
            </label>
            {found.arguments.map((a) => (
              <span key={a.id} className="ml-6 mr-3 text-xs">
                <span className="cad-parameter">{`<${a.id}>`}</span> ← <span className="font-mono">{a.value}</span>
              </span>
            ))}
            {found.differing.map(({ place, step }) => {
              const ours = steps[place];
              return ours?.kind === 'step' ? (
                <p key={place} className="ml-6 text-xs">
                  <WordDiff from={both(step)} to={both(ours)} />
                </p>
              ) : null;
            })}
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

function both({ action, expected }: Extract<Step, { kind: 'step' }>): string {
  return expected === '' ? action : `${action} ⇒ ${expected}`;
}

/** The runs by case: each case is changed once. */
function byCase(runs: readonly FoundRun[]): { readonly id: CaseId; readonly runs: readonly FoundRun[] }[] {
  return [...new Set(runs.map((r) => r.id))].map((id) => ({ id, runs: runs.filter((r) => r.id === id) }));
}

/** Somebody changed a run after it was found. */
class RunMoved extends Error {
  readonly id: CaseId;
  constructor(id: CaseId) {
    super(`The run in ${id} is not what it was`);
    this.id = id;
  }
}

/** A case with its runs gone and the places where the shared steps are used instead. @throws RunMoved when a run is no longer what was looked at. */
async function replaced(project: string, { id, runs }: { readonly id: CaseId; readonly runs: readonly FoundRun[] }, steps: readonly Step[]): Promise<User> {
  const artefact = await call('readArtefact', { params: { project, id } });
  if (artefact.kind !== 'case') throw new RunMoved(id);
  const now = new Set(findRuns([{ id, content: artefact.content }], steps, null).map((r) => JSON.stringify(r)));
  if (!runs.every((r) => now.has(JSON.stringify(r)))) throw new RunMoved(id);
  const rest: Step[] = [];
  const uses: User['uses'] = [];
  for (const step of artefact.content.steps) {
    const run = runs.find((r) => r.steps.includes(step.id));
    if (run === undefined) rest.push(step);
    else if (run.steps[0] === step.id) uses.push({ at: rest.length + uses.length, step: newStepId(), arguments: [...run.arguments] });
  }
  return { kind: 'case', id, version: artefact.summary.version, content: { ...artefact.content, steps: rest }, uses };
}
