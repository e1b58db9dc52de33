import type { QuestionId } from '@caderno/core/artefacts';
import { answered, reopened, withdrawnQuestion, type QuestionContent } from '@caderno/core/basis';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCoverageRows, useMembers } from '../api/index.ts';
import { Loading, Margin, MarginNote, TextInput, Observations } from '../artefacts/index.ts';
import { MarkdownText } from '../text/index.ts';
import { Attachments } from '../attachments/index.ts';
import { OwnFields } from '../fields/index.ts';
import { address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Section, TextButton, countOf, dateAndTime, TextArea } from '../look/index.ts';
import { Remarks } from '../remarks/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';
import { StatusWord } from './questionWords.tsx';
import { Subjects } from './Subjects.tsx';
import { WriteIntoRequirement } from './WriteIntoRequirement.tsx';

/** A question: what is unclear, what it holds up, what was observed, and the answer. */
export function QuestionPage({ id }: { readonly id: QuestionId }) {
  const { data, error } = useEditable('question', id);
  return data === undefined ? <Loading error={error} /> : <Question key={id} artefact={data} />;
}

function Question({ artefact }: { readonly artefact: EditableArtefact<'question'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('question', artefact);
  const { content, update } = editing;
  const { id, state } = artefact.summary;
  const members = useMembers(project).data ?? [];
  const holdsUp = useCoverageRows(project)?.heldUp(id) ?? 0;
  return (
    <article className="px-8 pb-16 pt-5">
      <ArtefactHead summary={artefact.summary} state={content.status === 'withdrawn' ? null : state} editing={editing}>
        <TextInput label="Asked of" value={content.asked} readOnly={!canEdit} placeholder="nobody yet" suggestions={members.map((m) => m.name)} onChange={(asked) => update((c) => ({ ...c, asked }))} />
        <span title={content.status === 'open' ? `${countOf(holdsUp, 'coverage item')} wait for the answer` : undefined}>
          <StatusWord status={content.status} />
          {content.status === 'open' && <> · holds up {countOf(holdsUp, 'item')}</>}
        </span>
      </ArtefactHead>
      <div className="mt-2 flex gap-6 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <Section title="What is unclear" className="!mt-2">
            <Prose place="text" label={`What is unclear in ${id}`} value={content.text} readOnly={!canEdit} onChange={(text) => update((c) => ({ ...c, text }))} placeholder="What the text leaves open, and why it matters" />
          </Section>
          <Answer id={id} editing={editing} />
          <Observations observations={content.observations} canEdit={canEdit} onChange={(observations) => update((c) => ({ ...c, observations }))} />
        </div>
        <Margin>
          <Remarks id={id} version={artefact.summary.version} content={content} />
          <MarginNote title="About">
            <Subjects about={content.about} canEdit={canEdit} onChange={(about) => update((c) => ({ ...c, about }))} />
          </MarginNote>
          <OwnFields place="margin" id={id} kind="question" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
          <MarginNote title="Files">
            <Attachments attachments={content.attachments} canEdit={canEdit} onChange={(change) => update((c) => ({ ...c, attachments: change(c.attachments) }))} />
          </MarginNote>
          {content.settledIn.length > 0 && (
            <MarginNote title="Written into">
              {content.settledIn.map((s) => (
                <p key={s.id}>
                  <Link className="underline" to={`${address.versions(project, s.id)}?from=${s.version - 1}&to=${s.version}`}>
                    {s.id} v{s.version}
                  </Link>
                </p>
              ))}
            </MarginNote>
          )}
        </Margin>
      </div>
    </article>
  );
}

interface ProseProps {
  readonly label: string;
  /** Its field of the content. */
  readonly place: string;
  readonly value: string;
  readonly readOnly: boolean;
  readonly placeholder: string;
  readonly onChange: (value: string) => void;
}

function Prose({ label, place, value, readOnly, placeholder, onChange }: ProseProps) {
  if (readOnly) return <div className="mt-2">{value === '' ? <p className="text-ink2">Nothing is written.</p> : <MarkdownText text={value} />}</div>;
  return (
    <TextArea
      aria-label={label}
      data-place={place}
      value={value}
      rows={2}
      placeholder={placeholder}
      onChange={onChange}
      className="mt-2 w-full resize-none font-serif text-read leading-7 [field-sizing:content]"
    />
  );
}

/** The answer, and what can be done with it: reopen, withdraw, write it into the requirement. */
function Answer({ id, editing }: { readonly id: QuestionId; readonly editing: Editing<QuestionContent> }) {
  const { canEdit, person } = useFrame();
  const { content, update, save } = editing;
  const [writing, setWriting] = useState(false);
  const settle = useMemo(
    () => (change: (c: QuestionContent) => QuestionContent, note: string) => {
      update(change);
      // Saved once the edit is in: an answer counts from the moment it is given.
      setTimeout(() => void save(note), 0);
    },
    [save, update],
  );
  const commands = useMemo<Command[]>(
    () =>
      canEdit && content.status === 'open' && content.answer.trim() !== ''
        ? [{ id: 'answer', title: `Take the answer to ${id}`, keys: '$mod+Enter', keyLabel: 'Ctrl Enter', whileTyping: true, run: () => settle((c) => answered(c, c.answer, person.name, new Date().toISOString()), 'Answered') }]
        : [],
    [canEdit, content.answer, content.status, id, person.name, settle],
  );
  useCommands(commands);
  return (
    <Section title="Answer" aside={content.answeredAt === '' ? undefined : `${content.answeredBy}, ${dateAndTime(content.answeredAt)}`}>
      <Prose place="answer" label={`Answer to ${id}`} value={content.answer} readOnly={!canEdit || content.status !== 'open'} onChange={(answer) => update((c) => ({ ...c, answer }))} placeholder="What came back, in the words it was said" />
      {canEdit && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          {content.status === 'open' ? (
            <>
              <Button look={editing.dirty ? 'plain' : 'accent'} disabled={content.answer.trim() === ''} onClick={() => settle((c) => answered(c, c.answer, person.name, new Date().toISOString()), 'Answered')}>
                Answered
              </Button>
              <TextButton onClick={() => settle(withdrawnQuestion, 'Withdrawn')}>withdraw the question</TextButton>
            </>
          ) : (
            <Button onClick={() => settle(reopened, 'Reopened')}>Reopen</Button>
          )}
          {content.status === 'answered' && content.about.some((s) => s.kind === 'requirement') && <Button onClick={() => setWriting(true)}>Write it into the requirement</Button>}
        </div>
      )}
      {writing && <WriteIntoRequirement question={content} onClose={() => setWriting(false)} onWritten={(requirement, version) => settle((c) => ({ ...c, settledIn: [...c.settledIn.filter((s) => s.id !== requirement), { id: requirement, version }] }), `Written into ${requirement}`)} />}
    </Section>
  );
}
