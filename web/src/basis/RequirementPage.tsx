import type { RequirementId } from '@caderno/core/artefacts';
import type { RequirementContent } from '@caderno/core/basis';
import { percentDown, shownRatio, type RequirementCoverage } from '@caderno/core/coverage';
import type { ArtefactOfKind } from '@caderno/contract';
import { Pencil } from 'lucide-react';
import { useCallback, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useArtefact, useProject, useSummaries } from '../api/index.ts';
import { Loading, Margin, MarginNote, TextInput, Ticks, TitleField } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, PRIORITY_WORD, REQUIREMENT_TYPE_WORD, RISK_WORD, Section, TextButton, countOf, options } from '../look/index.ts';
import { SaveBar, useEditing } from '../versions/index.ts';
import { MarkdownEditor } from './MarkdownEditor.tsx';
import { MarkdownText } from './MarkdownText.tsx';

interface Props {
  readonly id: RequirementId;
  readonly coverage: RequirementCoverage | undefined;
  /** Whether the coverage of the project is known yet. */
  readonly counted: boolean;
}

/** A requirement as a text to read and to improve. */
export function RequirementPage({ id, ...coverage }: Props) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'requirement', id);
  return data === undefined ? <Loading error={error} /> : <Requirement key={id} artefact={data} {...coverage} />;
}

function Requirement({ artefact, coverage, counted }: { readonly artefact: ArtefactOfKind<'requirement'> } & Omit<Props, 'id'>) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('requirement', artefact);
  const { content, update } = editing;
  const { id, state, author, at } = artefact.summary;
  const justMade = (useLocation().state as { made?: boolean } | null)?.made === true;
  const set = <F extends keyof RequirementContent>(field: F) => (value: RequirementContent[F]) => update((c) => ({ ...c, [field]: value }));
  const modules = useProject(project).data?.modules ?? [];
  return (
    <article className="px-8 pb-16 pt-5">
      <div className="font-mono text-xs text-ink2">{id}</div>
      <TitleField label={`Title of ${id}`} value={content.title} readOnly={!canEdit} onChange={set('title')} focus={justMade} />
      <div className="mt-2 flex flex-wrap gap-2">
        <Choose label="Kind" value={content.type} options={options(REQUIREMENT_TYPE_WORD)} onChange={set('type')} disabled={!canEdit} />
        <TextInput label="Module" value={content.module} readOnly={!canEdit} onChange={set('module')} suggestions={modules} />
        <Choose label="Risk" value={content.risk} options={options(RISK_WORD)} onChange={set('risk')} disabled={!canEdit} />
        <Choose label="Priority" showLabel value={content.priority} options={options(PRIORITY_WORD)} onChange={set('priority')} disabled={!canEdit} />
        <TextInput label="Source" value={content.source} readOnly={!canEdit} onChange={set('source')} />
      </div>
      <div className="mt-3">
        <SaveBar id={id} state={state} author={author} at={at} editing={editing} />
      </div>
      <div className="mt-2 flex gap-6 max-[1100px]:flex-col">
        <RequirementBody content={content} canEdit={canEdit} onText={set('text')} />
        <Margin>
          <MarginNote title="Conditions from it">
            {coverage !== undefined && coverage.conditions.length > 0 && <ConditionLines project={project} requirement={id} coverage={coverage} />}
            {counted && (coverage === undefined || coverage.conditions.length === 0) && <p>None yet: it is unanalysed, which is not 100 %.</p>}
            <Link className="text-blue underline" to={address.conditions(project, id)}>
              {canEdit ? 'Mark conditions in its text' : 'See them in its text'}
            </Link>
          </MarginNote>
        </Margin>
      </div>
    </article>
  );
}

function RequirementBody({ content, canEdit, onText }: { readonly content: RequirementContent; readonly canEdit: boolean; readonly onText: (text: string) => void }) {
  const [writing, setWriting] = useState(false);
  const read = useCallback(() => setWriting(false), []);
  const actions = canEdit && (
    <TextButton onClick={() => setWriting((w) => !w)} className="inline-flex items-center gap-1 text-blue">
      <Pencil size={12} aria-hidden="true" /> {writing ? 'Read it' : 'Edit the text'}
    </TextButton>
  );
  return (
    <Section title="Text" aside={writing ? 'Markdown; Escape goes back to reading' : undefined} actions={actions} className="min-w-0 flex-1">
      <div className="mt-3">
        {writing ? (
          <MarkdownEditor value={content.text} onChange={onText} onLeave={read} />
        ) : content.text.trim() === '' ? (
          <p className="text-ink2">No text yet. {canEdit && <TextButton onClick={() => setWriting(true)}>Write it</TextButton>}</p>
        ) : (
          <MarkdownText text={content.text} />
        )}
      </div>
    </Section>
  );
}

function ConditionLines({ project, requirement, coverage }: { readonly project: string; readonly requirement: RequirementId; readonly coverage: RequirementCoverage }) {
  const titles = new Map((useSummaries(project, 'condition').data ?? []).map((c) => [c.id, c.title]));
  const percent = percentDown(shownRatio(coverage.counts));
  return (
    <>
      <ul className="space-y-1.5 py-1">
        {coverage.conditions.map((condition) => (
          <li key={condition.id}>
            <Link to={address.conditions(project, requirement, condition.id)} className="block hover:underline">
              <span className="font-mono">{condition.id}</span> {titles.get(condition.id)}
            </Link>
            <Ticks conditions={[condition]} most={20} />
          </li>
        ))}
      </ul>
      {percent !== null && (
        <p className="pb-1">
          {percent} % of {countOf(coverage.conditions.reduce((n, c) => n + c.standings.length, 0), 'item')} shown
        </p>
      )}
    </>
  );
}
