import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import { EMPTY_CASE, bindRow, expects, parameterId, plainStep, removeParameter, renameParameter, textsOfCase, withoutLostSteps, type CaseContent, type Parameter, type ParameterId, type RowId, type Step, type StepId } from '@caderno/core/cases';
import { DEFAULT_MOST_ITEMS } from '@caderno/core/conditions';
import { allRows, countExpanded } from '@caderno/core/shared';
import type { DesignChange } from '@caderno/core/coverage';
import type { CaseSummary } from '@caderno/contract';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useDesign, useReuse } from '../api/index.ts';
import { Defects, Loading, Margin, MarginNote } from '../artefacts/index.ts';
import { Attachments } from '../attachments/index.ts';
import { OwnFields } from '../fields/index.ts';
import { useCoveredDesign, useLiveCoverage } from '../liveCoverage/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Section, TextButton, countOf, locale } from '../look/index.ts';
import { PinnedUsers, Reach, UsedBy } from '../reuse/index.ts';
import { TakeOutDialog, usePutBack, useRename, type Owner, Parameters, Steps, useConstants, useOpened, type ParameterContext, type StepsEdit, type StepsOpened } from '../steps/index.ts';
import { Remarks } from '../remarks/index.ts';
import { InSuites } from '../suiteMembers/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';
import { DailyChips, RareChips, rareWords } from './CaseChips.tsx';
import { CaseData } from './CaseData.tsx';
import { CloneDialog } from './CloneDialog.tsx';
import { Covers } from '../covers/index.ts';
import { DependsOn } from './DependsOn.tsx';
import { FillGap } from './FillGap.tsx';
import { MergeDialog } from './MergeDialog.tsx';
import { Purpose } from './Purpose.tsx';
import { WorthALook } from './WorthALook.tsx';

/** A case as one page, from top to bottom. */
export function CasePage({ id }: { readonly id: CaseId }) {
  const { data, error } = useEditable('case', id);
  return data === undefined ? <Loading error={error} /> : <Case key={id} artefact={data} />;
}

function Case({ artefact }: { readonly artefact: EditableArtefact<'case'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('case', artefact);
  const { content, update } = editing;
  // What follows from the content may come a moment later: a key in a long case is not to wait for it.
  const settled = useDeferredValue(content);
  const { id, state } = artefact.summary;
  const [chosen, setChosen] = useState<RowId | null>(null);
  const [beginTurn, setBeginTurn] = useState(0);
  const [filling, setFilling] = useState<ConditionId | null>(null);
  const stored = useDesign(project, { case: id }).data;
  const opened = useOpened(settled, null, { kind: 'row', row: chosen });
  const design = useCoveredDesign(project, stored, settled.covers, opened.library);
  const change = useCoverageChange(artefact.summary, settled);
  const coverages = useLiveCoverage(design, change);
  const conditions = useMemo(() => new Map(design?.conditions.map((c) => [c.id, c])), [design]);
  const declare = useDeclare(update);
  const constants = useConstants();
  const setParameter = useCallback((p: ParameterId, part: Partial<Parameter>) => update((c) => ({ ...c, parameters: c.parameters.map((x) => (x.id === p ? { ...x, ...part } : x)) })), [update]);
  const dropParameter = useCallback((p: ParameterId) => update((c) => removeParameter(c, p)), [update]);
  const edit = useCallback((change: StepsEdit) => update((c) => withoutLostSteps(c, change(c))), [update]);
  const putBack = usePutBack(content, opened, useCallback((change: StepsEdit) => update(change), [update]));
  const [search, setSearch] = useSearchParams();
  const [taking, setTaking] = useState<readonly StepId[] | null>(() => stepsToTake(search, content));
  const [cloning, setCloning] = useState(false);
  const [merging, setMerging] = useState(false);
  const owner = useMemo<Owner>(() => ({ kind: 'case', id, version: editing.version, content }), [content, editing.version, id]);
  const { rename, dialog: renaming } = useRename(owner, useCallback((p: ParameterId, name: string) => update((c) => renameParameter(c, p, name)), [update]));
  const row = chosen === null ? null : (allRows(content, opened.library).find((r) => r.id === chosen) ?? null);
  const context = useMemo<ParameterContext>(
    () => ({ parameters: content.parameters, values: row === null ? null : bindRow(content.parameters, row), constants, onCreate: declare }),
    [constants, content.parameters, declare, row],
  );
  const gap = filling === null ? undefined : coverages.get(filling);
  const gapCondition = filling === null ? undefined : conditions.get(filling);
  const count = useMemo(() => countExpanded(settled, opened.library), [opened.library, settled]);
  const surfaced = useMemo(() => new Set(opened.surfaced.map((s) => s.parameter.name)), [opened.surfaced]);
  const texts = useMemo(() => textsOfCase(settled), [settled]);
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead
        summary={artefact.summary}
        state={state}
        editing={editing}
        onEnter={() => setBeginTurn((turn) => turn + 1)}
        links={<Link to={`${address.reading(project, id)}${chosen === null ? '' : `?instance=${numberOf(opened) + 1n}`}`}>Read through</Link>}
        rareWords={rareWords(content, count.instances)}
        rare={
          <RareChips content={content} instances={count.instances} canEdit={canEdit} update={update}>
            {canEdit && <TextButton className="text-xs" onClick={() => setCloning(true)}>Clone</TextButton>}
            {canEdit && <TextButton className="text-xs" onClick={() => setMerging(true)}>Merge with another case</TextButton>}
          </RareChips>
        }
      >
        <DailyChips content={content} canEdit={canEdit} update={update} />
      </ArtefactHead>
      {editing.dirty && <Reach id={id} />}
      {content.origin !== null && (
        <p className="mt-2 text-xs text-ink2">
          Cloned from <Link className="font-mono underline decoration-rule2" to={address.cases(project, content.origin.id)}>{content.origin.id}</Link> v{content.origin.version}
        </p>
      )}
      <div className="mt-4 flex gap-5 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <Purpose content={content} context={context} canEdit={canEdit} update={update} />
          {(content.kind === 'procedure' || content.steps.length > 0) && (
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
              <Steps steps={content.steps} context={context} opened={opened} canEdit={canEdit} update={edit} onTakeOut={setTaking} onPutBack={putBack} beginTurn={beginTurn} />
            </Section>
          )}
          <CaseData
            id={id}
            content={content}
            library={opened.library}
            constants={constants}
            instances={count.instances}
            conditions={conditions}
            coverages={coverages}
            mostItems={design?.mostItems ?? DEFAULT_MOST_ITEMS}
            chosen={chosen}
            onChoose={setChosen}
            canEdit={canEdit}
            update={update}
            onRename={rename}
            onRemoveParameter={dropParameter}
            onDeclare={declare}
          />
          <Section title="Parameters" aside={countOf(content.parameters.length, 'parameter')}>
            <Parameters
              parameters={content.parameters}
              texts={texts}
              surfaced={opened.surfaced}
              constants={constants}
              canEdit={canEdit}
              onSet={setParameter}
              onRename={rename}
              onRemove={dropParameter}
              onDeclare={declare}
            />
          </Section>
        </div>
        <Margin>
          <MarginNote title="Covers">
            <Covers of="case" id={id} content={settled} conditions={conditions} coverages={coverages} canEdit={canEdit} update={update} onFill={setFilling} />
          </MarginNote>
          <Remarks id={id} version={artefact.summary.version} content={content} />
          <OwnFields place="margin" id={id} kind="case" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
          <UsesAndUsers id={id} version={artefact.summary.version} uses={content.data !== null || content.steps.some((s) => s.kind !== 'step')} />
          <InSuites id={id} />
          <DependsOn id={id} content={settled} canEdit={canEdit} update={update} />
          <WorthALook id={id} content={settled} opened={opened} surfaced={surfaced} constants={constants} coverages={coverages} conditions={conditions} canEdit={canEdit} update={update} onChoose={setChosen} onTakeOut={setTaking} />
          <MarginNote title="Files">
            <Attachments attachments={content.attachments} canEdit={canEdit} onChange={(change) => update((c) => ({ ...c, attachments: change(c.attachments) }))} />
          </MarginNote>
          <MarginNote title="Defects">
            <Defects defects={content.defects} canEdit={canEdit} onChange={(defects) => update((c) => ({ ...c, defects }))} />
          </MarginNote>
        </Margin>
      </div>
      {gap !== undefined && gapCondition !== undefined && <FillGap content={content} condition={gapCondition} coverage={gap} update={update} onClose={() => setFilling(null)} />}
      {renaming}
      {cloning && <CloneDialog all={[id]} cases={[{ id, version: editing.version, content }]} unsaved={editing.dirty} onClose={() => setCloning(false)} />}
      {merging && <MergeDialog kept={{ id, version: editing.version, content }} onClose={() => setMerging(false)} />}
      {taking !== null && <TakeOutDialog owner={owner} steps={taking} onClose={() => (setTaking(null), setSearch(withoutTake, { replace: true }))} />}
    </article>
  );
}

type Update = Editing<CaseContent>['update'];

/** The run of steps that an address asks to take out: `take=s1,s2`. */
function stepsToTake(search: URLSearchParams, { steps }: CaseContent): readonly StepId[] | null {
  const asked = (search.get('take') ?? '').split(',');
  const ids = steps.filter((s) => asked.includes(s.id)).map((s) => s.id);
  return ids.length === 0 ? null : ids;
}

function withoutTake(search: URLSearchParams): URLSearchParams {
  const next = new URLSearchParams(search);
  next.delete('take');
  return next;
}

/** What of the case bears on coverage: writing an action is no reason to count again. */
function useCoverageChange({ id, state, version }: CaseSummary, { title, steps, parameters, rows, data, runs, covers }: CaseContent): DesignChange {
  // Of an action it matters only whether there is one.
  const bearing = JSON.stringify(steps.map((s) => (s.kind === 'step' ? plainStep(s.id, s.action.trim() === '' ? '' : 'something', s.expected) : s)));
  return useMemo(() => {
    const spoken = JSON.parse(bearing) as Step[];
    return { kind: 'case', id, case: { id, state, version, content: { ...EMPTY_CASE, title, steps: spoken, parameters, rows, data, runs, covers } } };
  }, [bearing, covers, data, id, parameters, rows, runs, state, title, version]);
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


/** The number of the instance that is opened. */
function numberOf({ opened }: StepsOpened): bigint {
  return opened.kind === 'opened' ? (opened.instance?.number ?? 0n) : 0n;
}

function stepsWords({ steps }: CaseContent, expanded: bigint): string {
  const opened = expanded === BigInt(steps.length) ? '' : `, ${expanded.toLocaleString(locale())} when all is opened`;
  return `${steps.length} written, ${steps.filter(expects).length} with an expected result${opened}`;
}

function UsesAndUsers({ id, version, uses }: { readonly id: CaseId; readonly version: number; readonly uses: boolean }) {
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
          <PinnedUsers id={id} version={version} />
        </MarginNote>
      )}
    </>
  );
}
