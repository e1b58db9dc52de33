import type { SharedId } from '@caderno/core/artefacts';
import { parameterId, parameterProblems, parametersIn, renameInSteps, textsOfStep, type Parameter, type ParameterId, type StepId } from '@caderno/core/cases';
import type { SharedContent } from '@caderno/core/shared';
import { renameInText } from '@caderno/core/cases';
import { useCallback, useMemo, useState } from 'react';
import { useModules } from '../api/index.ts';
import { Loading, Margin, MarginNote, TextInput } from '../artefacts/index.ts';
import { OwnFields } from '../fields/index.ts';
import { useFrame } from '../frame/index.ts';
import { Section, countOf } from '../look/index.ts';
import { PinnedUsers, Reach, UsedBy } from '../reuse/index.ts';
import { ParameterField, Parameters, Steps, useConstants, useOpened, type ParameterContext, type StepsEdit, TakeOutDialog, type Owner, usePutBack, useRename } from '../steps/index.ts';
import { PhrasesInFull } from './PhrasesInFull.tsx';
import { Remarks } from '../remarks/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';

/** Shared steps: what they are for, the steps, their parameters, and who uses them. */
export function SharedPage({ id }: { readonly id: SharedId }) {
  const { data, error } = useEditable('shared', id);
  return data === undefined ? <Loading error={error} /> : <Shared key={id} artefact={data} />;
}

function Shared({ artefact }: { readonly artefact: EditableArtefact<'shared'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('shared', artefact);
  const { content, update } = editing;
  const { id, state } = artefact.summary;
  const modules = useModules(project);
  const opened = useOpened(content);
  const owner = useMemo<Owner>(() => ({ kind: 'shared', id, version: editing.version, content }), [content, editing.version, id]);
  const { rename, dialog: renaming } = useRename(owner, useCallback((p: ParameterId, name: string) => update((c) => renamed(c, p, name)), [update]));
  const [beginTurn, setBeginTurn] = useState(0);
  const [taking, setTaking] = useState<readonly StepId[] | null>(null);
  const edit = useCallback((change: StepsEdit) => update(change), [update]);
  const putBack = usePutBack(content, opened, edit);
  const declare = useDeclare(update);
  const constants = useConstants();
  const context = useMemo<ParameterContext>(() => ({ parameters: content.parameters, values: null, constants, onCreate: declare }), [constants, content.parameters, declare]);
  const texts = [content.purpose, ...content.steps.flatMap(textsOfStep)];
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead summary={artefact.summary} state={state} editing={editing} onEnter={() => setBeginTurn((turn) => turn + 1)}>
        <TextInput label="Module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
        <span>Shared steps</span>
      </ArtefactHead>
      {editing.dirty && <Reach id={id} />}
      <div className="mt-4 flex gap-5 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <dl className="grid grid-cols-[6.5rem_1fr]">
            <dt className="pt-px text-xs leading-5 text-ink2">Purpose</dt>
            <dd className="min-w-0">
              <ParameterField label="Purpose" value={content.purpose} onChange={(purpose) => update((c) => ({ ...c, purpose }))} context={context} readOnly={!canEdit} placeholder="What they are for, and what holds when they are done" />
            </dd>
          </dl>
          <Section title="Steps" aside={`${content.steps.length} written${opened.opened.kind === 'opened' && opened.opened.steps.length !== content.steps.length ? `, ${opened.opened.steps.length} when all is opened` : ''}`}>
            <Steps steps={content.steps} context={context} opened={opened} canEdit={canEdit} update={edit} onTakeOut={setTaking} onPutBack={putBack} beginTurn={beginTurn} />
          </Section>
          <Section title="Parameters" aside={countOf(content.parameters.length, 'parameter')}>
            <Parameters
              parameters={content.parameters}
              texts={texts}
              surfaced={opened.surfaced}
              constants={constants}
              canEdit={canEdit}
              onSet={(p, part) => update((c) => ({ ...c, parameters: c.parameters.map((x) => (x.id === p ? { ...x, ...part } : x)) }))}
              onRename={rename}
              onRemove={(p) => update((c) => ({ ...c, parameters: c.parameters.filter((x) => x.id !== p) }))}
              onDeclare={declare}
            />
          </Section>
        </div>
        <Margin>
          <Remarks id={id} version={artefact.summary.version} content={content} />
          <OwnFields place="margin" id={id} kind="shared" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
          <MarginNote title="Used by">
            <UsedBy id={id} side="users" />
            <PinnedUsers id={id} version={artefact.summary.version} />
          </MarginNote>
          {content.phrases.length > 0 && <PhrasesInFull content={content} canEdit={canEdit} update={update} />}
          {content.steps.some((s) => s.kind !== 'step') && (
            <MarginNote title="Uses">
              <UsedBy id={id} side="uses" />
            </MarginNote>
          )}
          <Problems content={content} surfaced={new Set(opened.surfaced.map((s) => s.parameter.name))} />
        </Margin>
      </div>
      {renaming}
      {taking !== null && <TakeOutDialog owner={owner} steps={taking} onClose={() => setTaking(null)} />}
    </article>
  );
}

function renamed(content: SharedContent, id: Parameter['id'], name: string): SharedContent {
  const old = content.parameters.find((p) => p.id === id)?.name;
  return old === undefined ? content : { ...renameInSteps(content, id, name), purpose: renameInText(content.purpose, old, name) };
}

function useDeclare(update: Editing<SharedContent>['update']): (name: string, like?: Parameter) => void {
  return useCallback(
    (name, like) => {
      const id = parameterId(crypto.randomUUID().slice(0, 8));
      update((c) => (c.parameters.some((p) => p.name === name) ? c : { ...c, parameters: [...c.parameters, { type: 'text', default: '', description: '', ...like, id, name }] }));
    },
    [update],
  );
}

function Problems({ content, surfaced }: { readonly content: SharedContent; readonly surfaced: ReadonlySet<string> }) {
  const used = [...new Set([content.purpose, ...content.steps.flatMap(textsOfStep)].flatMap(parametersIn))];
  const unused = parameterProblems(content.parameters, used, (p) => surfaced.has(p.name)).flatMap((p) => (p.code === 'parameter_unused' ? [p.name] : []));
  if (unused.length === 0) return null;
  return (
    <MarginNote title="Hints">
      {unused.map((name) => (
        <p key={name}>
          <span className="cad-parameter">{`<${name}>`}</span> is used nowhere in it.
        </p>
      ))}
    </MarginNote>
  );
}
