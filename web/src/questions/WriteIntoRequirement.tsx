import type { RequirementId } from '@caderno/core/artefacts';
import type { QuestionContent } from '@caderno/core/basis';
import type { ArtefactOfKind } from '@caderno/contract';
import { useState } from 'react';
import { call, tellFailure, useArtefact } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, TextArea } from '../look/index.ts';
import { WordDiff } from '../versions/index.ts';

interface Props {
  readonly question: QuestionContent;
  readonly onClose: () => void;
  readonly onWritten: (requirement: RequirementId, version: number) => void;
}

/** An answer turned into a change of the requirement it is about: the words in question, replaced or continued, and seen before they are saved. */
export function WriteIntoRequirement({ question, onClose, onWritten }: Props) {
  const { project } = useFrame();
  const requirements = question.about.flatMap((s) => (s.kind === 'requirement' ? [s] : []));
  const [id, setId] = useState<RequirementId | undefined>(requirements[0]?.id);
  const subject = requirements.find((s) => s.id === id);
  if (subject === undefined) return null;
  return (
    <Dialog title="Write the answer into the requirement" onClose={onClose} wide>
      {requirements.length > 1 && <Choose label="Requirement" showLabel value={subject.id} options={requirements.map((s) => ({ value: s.id, name: s.id }))} onChange={setId} />}
      <Writing key={subject.id} project={project} id={subject.id} words={subject.words} question={question} onClose={onClose} onWritten={onWritten} />
    </Dialog>
  );
}

interface WritingProps extends Props {
  readonly project: string;
  readonly id: RequirementId;
  readonly words: string;
}

function Writing({ project, id, ...rest }: WritingProps) {
  const artefact = useArtefact(project, 'requirement', id).data;
  return artefact === undefined ? <p className="mt-3 text-ink2">Reading …</p> : <Text project={project} id={id} artefact={artefact} {...rest} />;
}

function Text({ project, id, artefact, words, question, onClose, onWritten }: WritingProps & { readonly artefact: ArtefactOfKind<'requirement'> }) {
  const before = artefact.content.text;
  const [text, setText] = useState(() => proposedText(before, words, question.answer));
  const save = (): void =>
    void call(
      'saveArtefact',
      { params: { project, id }, body: { kind: 'requirement', content: { ...artefact.content, text }, note: `Answer of ${question.answeredBy}: ${question.title}`.slice(0, 2000), keepsDraft: true } },
      { ifMatch: artefact.summary.version, commandId: crypto.randomUUID() },
    ).then((saved) => {
      onWritten(id, saved.summary.version);
      onClose();
    }, tellFailure);
  return (
    <div className="mt-3 space-y-3">
      {artefact.draft !== null && <p className="rounded-field bg-ochre-wash px-3 py-1.5 text-sm">You have a draft of {id} that is not saved; it will be merged with this change.</p>}
      <p className="text-sm">
        <span className="text-ink2">The answer:</span> {question.answer}
      </p>
      <label className="block text-xs text-ink2">
        Text of {id}, in Markdown
        <TextArea autoFocus rows={6} value={text} onChange={setText} className="mt-0.5 w-full font-serif text-read leading-7 text-ink" />
      </label>
      <div>
        <div className="text-xs text-ink2">What changes</div>
        <p className="mt-1 whitespace-pre-wrap rounded-field border border-rule px-3 py-2 font-serif text-read leading-7">
          <WordDiff from={before} to={text} />
        </p>
      </div>
      <div className="flex gap-2">
        <Button look="accent" disabled={text === before} onClick={save}>
          Save v{artefact.summary.version + 1} of {id}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </div>
  );
}

/** The answer after the sentence in question, or at the end: a beginning, to be edited. */
function proposedText(text: string, words: string, answer: string): string {
  const at = words === '' ? -1 : text.indexOf(words);
  const end = at < 0 ? -1 : text.indexOf('.', at + words.length);
  if (end < 0) return `${text.trimEnd()} ${answer.trim()}`.trim();
  return `${text.slice(0, end + 1)} ${answer.trim()}${text.slice(end + 1)}`;
}
