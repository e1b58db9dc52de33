import type { RequirementId } from '@caderno/core/artefacts';
import { dismissalOf, type RequirementContent } from '@caderno/core/basis';
import { anchorAt } from '@caderno/core/conditions';
import { percentDown, shownRatio, type RequirementCoverage } from '@caderno/core/coverage';
import { memo, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useModules, useSummaries } from '../api/index.ts';
import { Loading, Margin, MarginNote, TextInput, Ticks, useAddCondition, useAskAbout, usePriorityChoices } from '../artefacts/index.ts';
import { Attachments } from '../attachments/index.ts';
import { OwnFields } from '../fields/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, REQUIREMENT_TYPE_WORD, countOf, options, priorityWord } from '../look/index.ts';
import { Remarks, type PagePlace } from '../remarks/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact } from '../versions/index.ts';
import { FeatureLines } from './FeatureLines.tsx';
import { FromSource } from './FromSource.tsx';
import { MergeDialog } from './MergeDialog.tsx';
import { QuestionLines } from './QuestionLines.tsx';
import { RequirementText } from './RequirementText.tsx';
import { Risk, RiskRating } from './RiskChoices.tsx';
import { SplitDialog } from './SplitDialog.tsx';
import { TermNotes } from './TermNotes.tsx';
import { useMarks } from './wording/useWording.ts';
import { WordingNotes } from './wording/WordingNotes.tsx';

interface Props {
  readonly id: RequirementId;
  readonly coverage: RequirementCoverage | undefined;
  /** Whether the coverage of the project is known yet. */
  readonly counted: boolean;
  /** The weak words of the basis, once it was looked through. */
  readonly wording: Readonly<Record<string, number>> | null;
}

/** A requirement as a text to read critically and to improve. Kept while only the outline beside it is filtered. */
export const RequirementPage = memo(function RequirementPage({ id, ...rest }: Props) {
  const { data, error } = useEditable('requirement', id);
  return data === undefined ? <Loading error={error} /> : <Requirement key={id} artefact={data} {...rest} />;
});

function Requirement({ artefact, coverage, counted, wording }: { readonly artefact: EditableArtefact<'requirement'> } & Omit<Props, 'id'>) {
  const { project, canEdit, person } = useFrame();
  const editing = useEditing('requirement', artefact);
  const { content, update, dirty } = editing;
  const { id, state } = artefact.summary;
  const [remarking, setRemarking] = useState<PagePlace | null>(null);
  const [dialog, setDialog] = useState<'split' | 'merge' | null>(null);
  const set = <F extends keyof RequirementContent>(field: F) => (value: RequirementContent[F]) => update((c) => ({ ...c, [field]: value }));
  const modules = useModules(project);
  const priorities = usePriorityChoices(project, content.priority);
  const marks = useMarks(id, content.text, wording);
  const standing = useMemo(() => marks.filter((m) => dismissalOf(m, content.dismissals) === null), [content.dismissals, marks]);
  const ask = useAskAbout(id, content.text);
  const addCondition = useAddCondition(id, artefact.summary.version);
  const dismissing = canEdit
    ? {
        onDismiss: (mark: (typeof marks)[number], reason: string) =>
          update((c) => ({ ...c, dismissals: [...c.dismissals, { id: crypto.randomUUID(), rule: mark.rule, words: mark.words, sentence: mark.sentence, reason, by: person.name, at: new Date().toISOString() }] })),
        onAsk: (mark: (typeof marks)[number]) => ask(mark.start, mark.end),
        onSplit: () => setDialog('split'),
        onTakeBack: () => update((c) => ({ ...c, dismissals: [] })),
      }
    : {};
  return (
    <article className="px-8 pb-16 pt-5">
      <ArtefactHead
        summary={artefact.summary}
        state={state}
        editing={editing}
        links={content.origin !== null && <span className="max-w-32 truncate font-mono" title={`Its id in ${content.origin.source}: ${content.origin.id}`}>{content.origin.id}</span>}
        rareWords={[REQUIREMENT_TYPE_WORD[content.type], `Priority: ${priorityWord(content.priority)}`, ...(content.source === '' ? [] : [content.source])]}
        rare={
          <>
            <Choose label="Kind" value={content.type} options={options(REQUIREMENT_TYPE_WORD)} onChange={set('type')} disabled={!canEdit} />
            <Choose label="Priority" showLabel value={content.priority} options={priorities} onChange={set('priority')} disabled={!canEdit} />
            <RiskRating content={content} canEdit={canEdit} update={update} />
            <TextInput label="Source" value={content.source} readOnly={!canEdit} onChange={set('source')} />
          </>
        }
      >
        <TextInput label="Module" bare placeholder="No module" value={content.module} readOnly={!canEdit} onChange={set('module')} suggestions={modules} />
        <Risk content={content} canEdit={canEdit} update={update} />
      </ArtefactHead>
      <div className="mt-2 flex gap-6 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <RequirementText content={content} marks={standing} canEdit={canEdit} onText={set('text')} onAsk={ask} onRemark={(start, end) => setRemarking({ path: 'text', words: { start, end } })} {...(dirty ? {} : { onCondition: (start, end) => addCondition(anchorAt(content.text, start, end)), onSplit: () => setDialog('split'), onMerge: () => setDialog('merge') })} />
          <FromSource content={content} />
        </div>
        <Margin>
          <Remarks id={id} version={artefact.summary.version} content={content} asked={remarking} onAsked={() => setRemarking(null)} />
          <MarginNote title={standing.length === 0 ? 'Weak wording' : `Weak wording · ${standing.length}`}>
            {wording === null ? <p>Looking …</p> : <WordingNotes id={id} marks={standing} dismissed={marks.length - standing.length} {...dismissing} />}
          </MarginNote>
          <QuestionLines id={id} />
          <MarginNote title="Conditions from it">
            {coverage !== undefined && coverage.conditions.length > 0 && <ConditionLines project={project} requirement={id} coverage={coverage} />}
            {content.type === 'heading' ? <p>A heading parts the outline and is counted nowhere. If it demands something, change its kind.</p> : counted && (coverage === undefined || coverage.conditions.length === 0) && <p>None: not analysed yet.</p>}
            <Link className="text-blue underline" to={address.conditions(project, id)}>
              {canEdit ? 'Mark conditions in its text' : 'See them in its text'}
            </Link>
          </MarginNote>
          <FeatureLines requirement={artefact.summary} />
          <OwnFields place="margin" id={id} kind="requirement" own={content.own} canEdit={canEdit} onChange={set('own')} />
          <MarginNote title="Files">
            <Attachments attachments={content.attachments} canEdit={canEdit} onChange={(change) => update((c) => ({ ...c, attachments: change(c.attachments) }))} />
          </MarginNote>
          <TermNotes text={content.text} />
        </Margin>
      </div>
      {dialog === 'split' && <SplitDialog id={id} content={artefact.content} onClose={() => setDialog(null)} />}
      {dialog === 'merge' && <MergeDialog id={id} content={artefact.content} onClose={() => setDialog(null)} />}
    </article>
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
