import type { QuestionId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION, type QuestionStatus } from '@caderno/core/basis';
import { questionIdSchema, type QuestionSummary } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { download, tellFailure, useCoverageRows, useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { Button, CannotBeRead, Choose, Empty, TextButton, countOf } from '../look/index.ts';
import { QuestionPage } from './QuestionPage.tsx';
import { StatusWord, byHeldUp } from './questionWords.tsx';

type Shown = QuestionStatus | 'all';
const SHOWN: { value: Shown; name: string }[] = [{ value: 'open', name: 'Open' }, { value: 'answered', name: 'Answered' }, { value: 'withdrawn', name: 'Withdrawn' }, { value: 'all', name: 'All' }];

/** The questions, those first that hold up most, at the left; the one that is open at the right. */
export function QuestionsChapter() {
  const { project, canEdit } = useFrame();
  const parsed = questionIdSchema.safeParse(useParams().question);
  const current = parsed.success ? parsed.data : null;
  const all = useSummaries(project, 'question').data;
  const known = useCoverageRows(project);
  const [shown, setShown] = useState<Shown>('open');
  const questions = useMemo(() => byHeldUp(all ?? [], known).filter((q) => shown === 'all' || q.status === shown), [all, known, shown]);
  const add = useAdd();
  useQuestionCommands(questions, current, canEdit, add);
  return (
    <Spread
      chapter="questions"
      leftShare={42}
      leftLabel="Questions"
      rightLabel="Question"
      left={
        <div className="flex h-full flex-col">
          <header className="flex flex-wrap items-center gap-2 px-5 pb-2.5 pt-5">
            <h1 className="font-serif text-xl font-semibold">Questions</h1>
            <Choose label="Shown" value={shown} options={SHOWN} onChange={setShown} />
            <span className="ml-auto" />
            <Link className="text-sm text-blue underline" to={address.agenda(project)}>
              Agenda
            </Link>
            {canEdit && <Button onClick={add}>New</Button>}
          </header>
          {all !== undefined && questions.length === 0 ? (
            <Empty title={shown === 'open' ? 'Nothing is open' : 'None here'}>Mark words in a requirement, or open a condition, and raise what it leaves open. What waits for the answer stands as waiting in coverage.</Empty>
          ) : (
            <ul aria-label="Questions" className="min-h-0 flex-1 overflow-y-auto">
              {questions.map((q) => (
                <QuestionLine key={q.id} question={q} holdsUp={known?.heldUp(q.id) ?? 0} isCurrent={q.id === current} />
              ))}
            </ul>
          )}
          <footer className="flex items-center gap-4 border-t border-rule px-5 py-2 text-xs text-ink2">
            <span>Save as</span>
            <TextButton onClick={() => void download('exportQuestions', { params: { project }, query: { format: 'md', status: 'all' } }).catch(tellFailure)}>Markdown</TextButton>
            <TextButton onClick={() => void download('exportQuestions', { params: { project }, query: { format: 'csv', status: 'all' } }).catch(tellFailure)}>CSV</TextButton>
          </footer>
        </div>
      }
      right={current === null ? <ChapterOverview kinds={['question']}>Open a question at the left: its answer can be written here, tried on the real thing, and turned into a change of the requirement.</ChapterOverview> : <QuestionPage id={current} />}
    />
  );
}

function QuestionLine({ question, holdsUp, isCurrent }: { readonly question: QuestionSummary; readonly holdsUp: number; readonly isCurrent: boolean }) {
  const { project } = useFrame();
  return (
    <li>
      <Link to={address.questions(project, question.id)} aria-current={isCurrent ? 'page' : undefined} className={`flex gap-3 border-b border-rule px-5 py-2.5 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
        <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{question.id}</span>
        <span className="min-w-0 flex-1">
          <span className={isCurrent ? 'font-semibold' : ''}>{question.title}</span>
          <span className="block text-xs text-ink2">
            {question.broken ? <CannotBeRead /> : <StatusWord status={question.status} />} · {question.asked === '' ? 'asked of nobody yet' : `asked of ${question.asked}`} · about {question.about.join(', ') || 'the project'}
          </span>
        </span>
        {question.status === 'open' && (
          <span className="shrink-0 text-right text-xs text-ink2" title={`${countOf(holdsUp, 'coverage item')} wait for the answer`}>
            <b className={`block font-serif text-xl leading-6 ${holdsUp > 0 ? 'text-plum' : 'text-ink2'}`}>{holdsUp}</b>
            held up
          </span>
        )}
      </Link>
    </li>
  );
}

function useAdd(): () => void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const create = useCreate(project);
  return useCallback(() => {
    void create({ kind: 'question', content: { ...EMPTY_QUESTION, title: 'New question' } }).then(async (id) => {
      if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
    });
  }, [create, navigate, project]);
}

function useQuestionCommands(questions: readonly QuestionSummary[], current: QuestionId | null, canEdit: boolean, add: () => void): void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const commands = useMemo<Command[]>(() => {
    const at = questions.findIndex((q) => q.id === current);
    const open = (index: number): void => {
      const id = questions[index]?.id;
      if (id !== undefined) void navigate(address.questions(project, id));
    };
    return [
      { id: 'next-question', title: 'Open the next question', keys: 'ArrowDown', keyLabel: '↓', run: () => open(at + 1) },
      { id: 'previous-question', title: 'Open the question before', keys: 'ArrowUp', keyLabel: '↑', run: () => open(at - 1) },
      { id: 'agenda', title: 'Open the agenda', keys: 'a', keyLabel: 'a', run: () => void navigate(address.agenda(project)) },
      ...(canEdit ? [{ id: 'new-question', title: 'New question', keys: 'n', keyLabel: 'n', changes: true, run: add }] : []),
    ];
  }, [add, canEdit, current, navigate, project, questions]);
  useCommands(commands);
}

