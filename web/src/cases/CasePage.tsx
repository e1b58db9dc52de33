import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import { EMPTY_CASE, bindRow, caseProblems, expects, parameterId, removeParameter, renameParameter, textsOfStep, withoutLostSteps, plainStep, type CaseContent, type Parameter, type RowId, type Step, type StepId } from '@caderno/core/cases';
import { countExpanded, type Constants } from '@caderno/core/shared';
import type { DesignChange } from '@caderno/core/coverage';
import type { ArtefactOfKind, CaseSummary } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useArtefact, useDesign, useMembers, useProject, useReuse } from '../api/index.ts';
import { Defects, Loading, Margin, MarginNote, TextInput, TitleField } from '../artefacts/index.ts';
import { useLiveCoverage } from '../coverage/index.ts';
import { DataGrid } from '../data/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, PRIORITY_WORD, Section, TextButton, countOf, options } from '../look/index.ts';
import { Reach, TakeOutDialog, UsedBy, usePutBack } from '../shared/index.ts';
import { ParameterField, Parameters, Steps, useConstants, useOpened, type ParameterContext, type StepsEdit, type StepsOpened } from '../steps/index.ts';
import { SaveBar, useEditing, type Editing } from '../versions/index.ts';
import { Covers } from './Covers.tsx';
import { FillGap } from './FillGap.tsx';
import { caseProblemSentence } from './caseProblemSentence.ts';
import { rowShows } from './rowShows.ts';
import { useCoveredDesign } from './useCoveredDesign.ts';

/** A case as one page, from top to bottom. */
export function CasePage({ id }: { readonly id: CaseId }) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'case', id);
  return data === undefined ? <Loading error={error} /> : <Case key={id} artefact={data} />;
}

function Case({ artefact }: { readonly artefact: ArtefactOfKind<'case'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('case', artefact);
  const { content, update } = editing;
  const { id, state, author, at } = artefact.summary;
  const justMade = (useLocation().state as { made?: boolean } | null)?.made === true;
  const [chosen, setChosen] = useState<RowId | null>(null);
  const [filling, setFilling] = useState<ConditionId | null>(null);
  const stored = useDesign(project, { case: id }).data;
  const opened = useOpened(content);
  const design = useCoveredDesign(project, stored, content, opened.library);
  const change = useCoverageChange(artefact.summary, content);
  const coverages = useLiveCoverage(design, change);
  const conditions = useMemo(() => new Map(design?.conditions.map((c) => [c.id, c])), [design]);
  const shows = useMemo(() => rowShows(id, content.rows, coverages), [content.rows, coverages, id]);
  const declare = useDeclare(update);
  const constants = useConstants();
  const edit = useCallback((change: StepsEdit) => update((c) => withoutLostSteps(c, change(c))), [update]);
  const putBack = usePutBack(content, opened, useCallback((change: StepsEdit) => update(change), [update]));
  const [taking, setTaking] = useState<readonly StepId[] | null>(null);
  const row = content.rows.find((r) => r.id === chosen) ?? null;
  const context = useMemo<ParameterContext>(
    () => ({ parameters: content.parameters, values: row === null ? null : bindRow(content.parameters, row), constants, onCreate: declare }),
    [constants, content.parameters, declare, row],
  );
  const gap = filling === null ? undefined : coverages.get(filling);
  const gapCondition = filling === null ? undefined : conditions.get(filling);
  const count = useMemo(() => countExpanded(content, opened.library), [content, opened.library]);
  const surfaced = useMemo(() => new Set(opened.surfaced.map((s) => s.parameter.name)), [opened.surfaced]);
  bindChosen(opened, content, chosen);
  return (
    <article className="px-7 pb-16 pt-5">
      <div className="text-xs text-ink2">
        <Trail content={content} conditions={conditions} />
        <span className="font-mono">{id}</span>
      </div>
      <TitleField label={`Title of ${id}`} value={content.title} readOnly={!canEdit} onChange={(title) => update((c) => ({ ...c, title }))} focus={justMade} />
      <CaseChips content={content} instances={count.instances} canEdit={canEdit} update={update} />
      <div className="mt-3">
        <SaveBar id={id} state={state} author={author} at={at} editing={editing} />
      </div>
      {editing.dirty && <Reach id={id} />}
      <p className="mt-3 text-sm">
        <Link className="underline decoration-rule2" to={`${address.reading(project, id)}${chosen === null ? '' : `?instance=${firstInstance(opened, content, chosen) + 1n}`}`}>
          Read through
        </Link>
      </p>
      <div className="mt-4 flex gap-5 max-[1100px]:flex-col">
        <div className="min-w-0 flex-1">
          <Purpose content={content} context={context} canEdit={canEdit} update={update} />
          <Section
            title="Steps"
            aside={stepsWords(content, count.steps)}
            actions={
              row !== null && (
                <span className="text-ink2">
                  showing values of row <span className="cad-value">{row.name || 'unnamed'}</span> <TextButton onClick={() => setChosen(null)}>hide</TextButton>
                </span>
              )
            }
          >
            <Steps steps={content.steps} context={context} opened={opened} canEdit={canEdit} update={edit} onTakeOut={setTaking} onPutBack={putBack} />
          </Section>
          <Section title="Data" aside={`${countOf(content.rows.length, 'row')} · ${manyOf(count.instances, 'instance')}`}>
            <DataGrid rows={content.rows} parameters={content.parameters} canEdit={canEdit} update={update} shows={shows} chosen={chosen} onChoose={setChosen} />
          </Section>
          <Section title="Parameters" aside={countOf(content.parameters.length, 'parameter')}>
            <Parameters
              parameters={content.parameters}
              texts={[content.objective, content.preconditions, ...content.steps.flatMap(textsOfStep)]}
              surfaced={opened.surfaced}
              constants={constants}
              canEdit={canEdit}
              onSet={(p, part) => update((c) => ({ ...c, parameters: c.parameters.map((x) => (x.id === p ? { ...x, ...part } : x)) }))}
              onRename={(p, name) => update((c) => renameParameter(c, p, name))}
              onRemove={(p) => update((c) => removeParameter(c, p))}
              onDeclare={declare}
            />
          </Section>
        </div>
        <Margin>
          <MarginNote title="Covers">
            <Covers content={content} conditions={conditions} coverages={coverages} canEdit={canEdit} update={update} onFill={setFilling} />
          </MarginNote>
          <UsesAndUsers id={id} uses={content.steps.some((s) => s.kind !== 'step')} />
          <WorthALook content={content} surfaced={surfaced} constants={constants} />
          <MarginNote title="Defects">
            <Defects defects={content.defects} canEdit={canEdit} onChange={(defects) => update((c) => ({ ...c, defects }))} />
          </MarginNote>
        </Margin>
      </div>
      {gap !== undefined && gapCondition !== undefined && <FillGap condition={gapCondition} coverage={gap} update={update} onClose={() => setFilling(null)} />}
      {taking !== null && <TakeOutDialog owner={{ kind: 'case', id, version: editing.version, content }} steps={taking} onClose={() => setTaking(null)} />}
    </article>
  );
}

type Update = Editing<CaseContent>['update'];

/** What of the case bears on coverage: writing a title or an action is no reason to count again. */
function useCoverageChange({ id, state, version }: CaseSummary, { steps, parameters, rows, covers }: CaseContent): DesignChange {
  const bearing = JSON.stringify(steps.map((s) => (s.kind === 'step' ? plainStep(s.id, '', expects(s) ? 'something' : '') : s)));
  return useMemo(() => {
    const spoken = JSON.parse(bearing) as Step[];
    return { kind: 'case', id, case: { id, state, version, content: { ...EMPTY_CASE, steps: spoken, parameters, rows, covers } } };
  }, [bearing, covers, id, parameters, rows, state, version]);
}

/** Declares a parameter, with the case's row values still to come. Once is enough. */
function useDeclare(update: Update): (name: string, like?: Parameter) => void {
  return useCallback(
    (name, like) => {
      const id = parameterId(crypto.randomUUID().slice(0, 8));
      update((c) => (c.parameters.some((p) => p.name === name) ? c : { ...c, parameters: [...c.parameters, { type: 'text', default: '', description: '', ...like, id, name }] }));
    },
    [update],
  );
}

function Trail({ content, conditions }: { readonly content: CaseContent; readonly conditions: ReadonlyMap<ConditionId, { readonly content: { readonly title: string; readonly requirements: readonly { readonly id: `R-${number}` }[] } }> }) {
  const { project } = useFrame();
  const [first] = content.covers;
  const condition = first === undefined ? undefined : conditions.get(first.id);
  const requirement = condition?.content.requirements[0]?.id;
  if (first === undefined || condition === undefined) return null;
  return (
    <>
      {requirement !== undefined && (
        <Link className="font-mono hover:underline" to={address.basis(project, requirement)}>
          {requirement}
        </Link>
      )}
      {' › '}
      <Link className="hover:underline" to={address.condition(project, first.id)}>
        <span className="font-mono">{first.id}</span> {condition.content.title}
      </Link>
      {' › '}
    </>
  );
}

function CaseChips({ content, instances, canEdit, update }: { readonly content: CaseContent; readonly instances: bigint; readonly canEdit: boolean; readonly update: Update }) {
  const { project } = useFrame();
  const modules = useProject(project).data?.modules ?? [];
  const members = useMembers(project).data ?? [];
  const owners = [{ value: '', name: 'nobody' }, ...members.map((m) => ({ value: m.name, name: m.name })), ...(content.owner !== '' && !members.some((m) => m.name === content.owner) ? [{ value: content.owner, name: content.owner }] : [])];
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      <TextInput label="Module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
      <Choose label="Priority" showLabel value={content.priority} options={options(PRIORITY_WORD)} onChange={(priority) => update((c) => ({ ...c, priority }))} disabled={!canEdit} />
      <Choose label="Owner" showLabel value={content.owner} options={owners} onChange={(owner) => update((c) => ({ ...c, owner }))} disabled={!canEdit} />
      <Estimate value={content.estimate} instances={instances} canEdit={canEdit} onChange={(estimate) => update((c) => ({ ...c, estimate }))} />
      <Tags tags={content.tags} canEdit={canEdit} onChange={(tags) => update((c) => ({ ...c, tags }))} />
    </div>
  );
}

function Estimate({ value, instances, canEdit, onChange }: { readonly value: number | null; readonly instances: bigint; readonly canEdit: boolean; readonly onChange: (value: number | null) => void }) {
  const set = (text: string): void => {
    const minutes = Number(text.replace(',', '.'));
    if (text.trim() === '') onChange(null);
    else if (Number.isFinite(minutes) && minutes >= 0 && minutes <= 100_000) onChange(minutes);
  };
  return (
    <span className="inline-flex items-center gap-1.5 text-xs text-ink2">
      <TextInput label="Minutes" value={value === null ? '' : String(value)} readOnly={!canEdit} onChange={set} inputMode="numeric" />
      {value !== null && instances > 1n && `× ${instances.toLocaleString()} = ${(value * Number(instances)).toLocaleString()} min`}
    </span>
  );
}

/** Tags are typed with commas between; they become tags when one leaves the field. */
function Tags({ tags, canEdit, onChange }: { readonly tags: readonly string[]; readonly canEdit: boolean; readonly onChange: (tags: string[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange([...new Set(typed.split(',').map((t) => t.trim()).filter(Boolean))].slice(0, 50));
    setTyped(null);
  };
  return (
    <span onBlur={leave}>
      <TextInput label="Tags" value={typed ?? tags.join(', ')} readOnly={!canEdit} onChange={setTyped} />
    </span>
  );
}

function Purpose({ content, context, canEdit, update }: { readonly content: CaseContent; readonly context: ParameterContext; readonly canEdit: boolean; readonly update: Update }) {
  const parts = [
    { field: 'objective', word: 'Objective', hint: 'What it is to find out' },
    { field: 'preconditions', word: 'Preconditions', hint: 'What must hold before the first step' },
  ] as const;
  return (
    <dl className="grid grid-cols-[6.5rem_1fr] gap-y-1">
      {parts.map(({ field, word, hint }) => (
        <div key={field} className="contents">
          <dt className="pt-px text-xs leading-5 text-ink2">{word}</dt>
          <dd className="min-w-0">
            <ParameterField label={word} value={content[field]} onChange={(text) => update((c) => ({ ...c, [field]: text }))} context={context} readOnly={!canEdit} placeholder={hint} />
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Binds the chosen row, in its first instance, for the values of what is opened in place. */
function bindChosen(opened: StepsOpened, content: CaseContent, chosen: RowId | null): void {
  if (opened.opened.kind === 'opened') opened.opened.bind(firstInstance(opened, content, chosen));
}

/** The number of the first instance of a row. */
function firstInstance({ opened }: StepsOpened, content: CaseContent, row: RowId | null): bigint {
  if (opened.kind !== 'opened') return 0n;
  const at = Math.max(0, content.rows.findIndex((r) => r.id === row));
  return (opened.instances / BigInt(Math.max(1, content.rows.length))) * BigInt(at);
}

function stepsWords({ steps }: CaseContent, expanded: bigint): string {
  const opened = expanded === BigInt(steps.length) ? '' : `, ${expanded.toLocaleString()} when all is opened`;
  return `${steps.length} written, ${steps.filter(expects).length} with an expected result${opened}`;
}

function manyOf(count: bigint, word: string): string {
  return count === 1n ? `1 ${word}` : `${count.toLocaleString()} ${word}s`;
}

function UsesAndUsers({ id, uses }: { readonly id: CaseId; readonly uses: boolean }) {
  const { project } = useFrame();
  const users = useReuse(project, id).data?.users ?? [];
  return (
    <>
      {uses && (
        <MarginNote title="Uses">
          <UsedBy id={id} side="uses" />
        </MarginNote>
      )}
      {users.length > 0 && (
        <MarginNote title="Called by">
          <UsedBy id={id} side="users" />
        </MarginNote>
      )}
    </>
  );
}

const MOST_NOTES = 6;

function WorthALook({ content, surfaced, constants }: { readonly content: CaseContent; readonly surfaced: ReadonlySet<string>; readonly constants: Constants }) {
  const problems = caseProblems(content, surfaced, new Set(constants.keys()));
  if (problems.length === 0) return null;
  return (
    <MarginNote title="Worth a look">
      <ul className="space-y-1">
        {problems.slice(0, MOST_NOTES).map((problem) => (
          <li key={JSON.stringify(problem)}>{caseProblemSentence(problem)}</li>
        ))}
      </ul>
      {problems.length > MOST_NOTES && <p>and {problems.length - MOST_NOTES} more</p>}
    </MarginNote>
  );
}
