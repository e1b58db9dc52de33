import type { FeatureId } from '@caderno/core/artefacts';
import { EXECUTIONS } from '@caderno/core/cases';
import { executionOf, tagTest } from '@caderno/core/scenarios';
import type { RequirementSummary } from '@caderno/contract';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { useListed, useScenarioExecution } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, EXECUTION_WORD, countOf, locale, Tick, TextBox } from '../look/index.ts';

interface Props {
  readonly requirement: RequirementSummary;
  readonly onClose: () => void;
}

const ANY = 'any';
const RUN = [{ value: ANY, name: 'however they are run' }, ...EXECUTIONS.map((e) => ({ value: e, name: EXECUTION_WORD[e].toLowerCase() }))];
/** What is linked where only some scenarios of a feature are asked for. */
const WHAT = [
  { value: 'fitting', name: 'only the scenarios that fit' },
  { value: 'whole', name: 'the whole features' },
] as const;
const MOST_SHOWN = 200;

/** Features found by words, tags of their scenarios and how these are run, ticked, and linked to a requirement by one command. */
export function LinkFeatures({ requirement, onClose }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const [query, setQuery] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<FeatureId>>(new Set());
  const [tags, setTags] = useState('');
  const [run, setRun] = useState<string>(ANY);
  const [what, setWhat] = useState<(typeof WHAT)[number]['value']>('fitting');
  const expression = useExpression(tags, run);
  const isUnread = tags.trim() !== '' && tagTest(tags) === null;
  const found = useFound(requirement, query, tags, run);
  const chosen = found.filter((f) => ticked.has(f.id));
  const all = chosen.length === found.length && found.length > 0;
  const tick = (id: FeatureId, on: boolean): void => setTicked((now) => new Set(on ? [...now, id] : [...now].filter((other) => other !== id)));
  const link = async (): Promise<void> => {
    const done = await changeMany({ of: { ids: chosen.map((f) => f.id) }, done: { kind: 'edit', edit: { kind: 'writtenFor', requirement: requirement.id, seenVersion: requirement.version, belongs: true, tags: what === 'fitting' ? expression : '' } }, detail: `written for ${requirement.id}` });
    if (done === null) return;
    toast.success(`${countOf(done.changed, 'feature')} linked. The journal can undo it.`);
    onClose();
  };
  return (
    <Dialog title={`Features for ${requirement.id}`} onClose={onClose} wide>
      <p className="flex flex-wrap items-center gap-2 text-sm">
        <TextBox type="search" aria-label="Words or fields of features" placeholder="Words, or fields as module:bands" value={query} onChange={setQuery} className="w-64" />
        <TextBox type="search" aria-label="Tags of scenarios" aria-invalid={isUnread} placeholder="@smoke and not @slow" value={tags} onChange={setTags} className="w-52 font-mono text-xs" />
        <Choose label="How their scenarios are run" value={run} options={RUN} onChange={setRun} />
      </p>
      <ul aria-label="Features that could be linked" className="mt-3 max-h-[48vh] overflow-y-auto text-sm" tabIndex={0}>
        {found.slice(0, MOST_SHOWN).map((f) => (
          <li key={f.id} className="border-b border-rule">
            <Tick checked={ticked.has(f.id)} onChange={(ticked) => tick(f.id, ticked)} className="gap-2.5">
              <span className="w-12 shrink-0 font-mono text-xs text-ink2">{f.id}</span>
              <span className="min-w-0 flex-1">{f.title}</span>
              <span className="shrink-0 text-xs text-ink2">{countOf(f.fitting, 'scenario')}</span>
            </Tick>
          </li>
        ))}
      </ul>
      {isUnread && <p className="mt-3 text-sm text-ochre-ink">The tags cannot be read yet. Write them as @smoke and not @slow, or leave them out.</p>}
      {found.length === 0 && <p className="mt-3 text-ink2">No other feature is so.</p>}
      {found.length > MOST_SHOWN && <p className="mt-1 text-xs text-ink2">and {(found.length - MOST_SHOWN).toLocaleString(locale())} more: write some words</p>}
      <p className="mt-4 flex items-center gap-3">
        <Button look="accent" disabled={chosen.length === 0 || isUnread} onClick={() => void link()}>
          Link {countOf(chosen.length, 'feature')}
        </Button>
        <Button disabled={found.length === 0} onClick={() => setTicked(all ? new Set() : new Set(found.map((f) => f.id)))}>
          {all ? 'None' : 'All'}
        </Button>
        {expression !== '' && <Choose label="Link" showLabel value={what} options={WHAT} onChange={setWhat} />}
        <Button onClick={onClose}>Cancel</Button>
      </p>
    </Dialog>
  );
}

/** What is asked of scenarios, as one tag expression: whether one is run by hand is told by a tag as well. */
function useExpression(tags: string, run: string): string {
  const { tag, marks } = useScenarioExecution(useFrame().project);
  const asked = tagTest(tags) === null ? '' : tags.trim();
  const byRun = run === ANY ? '' : run === marks ? tag : `not ${tag}`;
  return asked === '' || byRun === '' ? asked + byRun : `(${asked}) and ${byRun}`;
}

/** Features that are not linked as a whole and have a scenario that is asked for, with how many they have. */
function useFound({ id }: RequirementSummary, query: string, tags: string, run: string): readonly { readonly id: FeatureId; readonly title: string; readonly fitting: number }[] {
  const { project } = useFrame();
  const execution = useScenarioExecution(project);
  const { data } = useListed(project, 'feature', useDeferredValue(query));
  const test = tagTest(tags);
  const isAsked = tags.trim() !== '' || run !== ANY;
  return (data ?? []).flatMap(({ head }) => {
    if (head.requirements.includes(id) && !head.scenariosFor.some((r) => r.requirement === id)) return [];
    const fitting = head.scenarios.filter((s) => (test === null || test(s.tags)) && (run === ANY || executionOf(s.tags, execution) === run)).length;
    return isAsked && fitting === 0 ? [] : [{ id: head.id, title: head.title, fitting }];
  });
}
