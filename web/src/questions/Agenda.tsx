import { answered, type QuestionContent } from '@caderno/core/basis';
import type { ArtefactOfKind, QuestionSummary } from '@caderno/contract';
import { Printer } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useArtefact, useCoverageRows, useSummaries, useRefresh } from '../api/index.ts';
import { MarkdownText } from '../text/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Empty, countOf, TextArea } from '../look/index.ts';
import { byHeldUp } from './questionWords.tsx';

/** Frames in which the next question must have been read. */
const MOST_FRAMES = 300;

/**
 * The open questions as the agenda of a meeting: what holds up most comes first. All answers in one sitting by
 * keyboard: type, Ctrl Enter takes the answer and leads to the next field.
 */
export function Agenda() {
  const { project, canEdit } = useFrame();
  const all = useSummaries(project, 'question').data;
  const known = useCoverageRows(project);
  // The order of the sitting stays while answers come in; what was answered here stays to be read.
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const open = useMemo(() => byHeldUp(all ?? [], known).filter((q) => q.status === 'open'), [all, known]);
  if (order === null && all !== undefined && known !== null) setOrder(open.map((q) => q.id));
  const points = (order ?? []).flatMap((id) => all?.find((q) => q.id === id) ?? []);
  const list = useRef<HTMLOListElement>(null);
  // A question that is still being read has no field yet: it is waited for, unless somebody begins to write elsewhere.
  const next = (from: HTMLElement, frames = MOST_FRAMES): void => {
    const fields = [...(list.current?.querySelectorAll<HTMLTextAreaElement>('textarea') ?? [])];
    const at = fields.findIndex((field) => field === from);
    const to = fields[at + 1] ?? fields.find((field) => field !== from);
    const writes = document.activeElement instanceof HTMLTextAreaElement && document.activeElement !== from;
    if (to !== undefined) to.focus();
    else if (frames > 0 && !writes) requestAnimationFrame(() => next(from, frames - 1));
  };
  return (
    <div className="h-full overflow-y-auto px-8 py-6 print:overflow-visible print:p-0">
      <div className="mx-auto max-w-3xl">
        <header className="flex items-baseline gap-4">
          <h1 className="font-serif text-2xl font-semibold">Agenda</h1>
          <span className="text-sm text-ink2">{countOf(open.length, 'open question')}, those first that hold up most</span>
          <span className="ml-auto flex items-center gap-3 print:hidden">
            <Link className="text-sm underline" to={address.questions(project)}>
              All questions
            </Link>
            <Button onClick={() => window.print()}>
              <Printer size={14} aria-hidden="true" /> Print
            </Button>
          </span>
        </header>
        {canEdit && points.length > 0 && <p className="mt-1 text-xs text-ink2 print:hidden">Type an answer; Ctrl Enter takes it and goes on to the next question, Tab goes on without.</p>}
        {order !== null && points.length === 0 && <Empty title="Nothing to settle">No question is open.</Empty>}
        <ol ref={list} className="mt-3">
          {points.map((question, i) => (
            <Point key={question.id} number={i + 1} question={question} holdsUp={known?.heldUp(question.id) ?? 0} onNext={next} />
          ))}
        </ol>
      </div>
    </div>
  );
}

interface PointProps {
  readonly number: number;
  readonly question: QuestionSummary;
  readonly holdsUp: number;
  readonly onNext: (from: HTMLElement) => void;
}

function Point({ number, question, holdsUp, onNext }: PointProps) {
  const { project } = useFrame();
  const artefact = useArtefact(project, 'question', question.id).data;
  return (
    <li className="break-inside-avoid border-b border-rule py-4">
      <h2 className="flex gap-3 font-serif text-lg font-semibold">
        <span className="w-6 text-ink2">{number}</span>
        <span className="min-w-0 flex-1">{question.title}</span>
        <Link className="font-mono text-xs font-normal leading-6 text-ink2 hover:underline" to={address.questions(project, question.id)}>
          {question.id}
        </Link>
      </h2>
      <div className="pl-9">
        <p className="text-xs text-ink2">
          about {question.about.join(', ') || 'the project'} · asked of {question.asked || 'nobody yet'} · <span className={holdsUp > 0 ? 'text-plum' : ''}>holds up {countOf(holdsUp, 'item')}</span>
        </p>
        {artefact !== undefined && <Body key={artefact.summary.version} artefact={artefact} onNext={onNext} />}
      </div>
    </li>
  );
}

function Body({ artefact, onNext }: { readonly artefact: ArtefactOfKind<'question'>; readonly onNext: (from: HTMLElement) => void }) {
  const { canEdit } = useFrame();
  const { content } = artefact;
  const take = useTakeAnswer(artefact);
  const [answer, setAnswer] = useState(content.answer);
  return (
    <>
      {content.text !== '' && <MarkdownText text={content.text} />}
      {content.observations.map((o) => (
        <p key={o.id} className="mb-2 text-sm">
          <span className="text-ink2">Tried by {o.by}:</span> {o.done} <span className="text-ink2">Came back:</span> {o.seen}
        </p>
      ))}
      {content.status === 'open' && canEdit ? (
        <TextArea
          aria-label={`Answer to ${artefact.summary.id}`}
          rows={2}
          value={answer}
          placeholder="Answer"
          onChange={setAnswer}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || answer.trim() === '') return;
            event.preventDefault();
            onNext(event.currentTarget);
            take(answer.trim());
          }}
          className="w-full resize-none [field-sizing:content] print:min-h-20"
        />
      ) : (
        <p className="text-sm">
          <span className={content.status === 'answered' ? 'font-semibold text-pine' : 'text-ink2'}>{content.status === 'answered' ? `Answered by ${content.answeredBy}:` : 'No answer yet.'}</span> {content.answer}
        </p>
      )}
    </>
  );
}

function useTakeAnswer({ summary, content }: ArtefactOfKind<'question'>): (answer: string) => void {
  const { project, person } = useFrame();
  const refresh = useRefresh(project);
  return (answer) => {
    const next: QuestionContent = answered(content, answer, person.name, new Date().toISOString());
    call('saveArtefact', { params: { project, id: summary.id }, body: { kind: 'question', content: next, note: 'Answered in the agenda', keepsDraft: true } }, { ifMatch: summary.version, commandId: crypto.randomUUID() }).then(() => {
      toast.success(`${summary.id} is answered.`);
      return refresh();
    }, tellFailure);
  };
}
