import type { ArtefactId, QuestionId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { questionIdSchema } from '@caderno/contract';
import { useCallback, useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { download, tellFailure, type ListedHead } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { ListPage, useListing, type LineLook } from '../listing/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { QuestionPage } from './QuestionPage.tsx';

const LOOK: LineLook<'question'> = {
  notes: ({ head }) => [head.asked === '' ? 'asked of nobody yet' : `asked of ${head.asked}`, `about ${head.about.join(', ') || 'the project'}`],
  mark: (listed) => (listed.head.status === 'open' ? <HeldUp listed={listed} /> : null),
  groupNote: (members) => heldUpWords(members.reduce((n, { heldUp = 0 }) => n + heldUp, 0)),
};

/** The questions, those first that hold up most, at the left; the one that is open at the right. */
export function QuestionsChapter() {
  const { project, canEdit } = useFrame();
  const parsed = questionIdSchema.safeParse(useParams().question);
  const current = parsed.success ? parsed.data : null;
  const listing = useListing('question');
  const add = useAdd();
  useQuestionCommands(listing.ids, current, canEdit, add);
  return (
    <Spread
      chapter="questions"
      leftShare={42}
      leftLabel="Questions"
      rightLabel="Question"
      left={
        <ListPage
          kind="question"
          listing={listing}
          current={current}
          look={LOOK}
          onNew={add}
          heading={
            <div className="flex items-baseline gap-3">
              <h1 className="font-serif text-xl font-semibold">Questions</h1>
              <Link className="ml-auto text-sm underline decoration-rule2" to={address.agenda(project)}>
                Agenda
              </Link>
            </div>
          }
        >
          <footer className="flex items-center gap-4 border-t border-rule px-5 py-2 text-xs text-ink2">
            <span>Save as</span>
            <TextButton onClick={() => void download('exportQuestions', { params: { project }, query: { format: 'md', status: 'all' } }).catch(tellFailure)}>Markdown</TextButton>
            <TextButton onClick={() => void download('exportQuestions', { params: { project }, query: { format: 'csv', status: 'all' } }).catch(tellFailure)}>CSV</TextButton>
          </footer>
        </ListPage>
      }
      right={current === null ? <ChapterOverview kinds={['question']}>Open a question at the left: its answer can be written here, tried on the real thing, and turned into a change of the requirement.</ChapterOverview> : <QuestionPage id={current} />}
    />
  );
}

function HeldUp({ listed: { heldUp = 0 } }: { readonly listed: ListedHead<'question'> }) {
  return (
    <span className="shrink-0 text-right text-xs text-ink2" title={`${countOf(heldUp, 'coverage item')} wait for the answer`}>
      <b className={`block font-serif text-xl leading-6 ${heldUp > 0 ? 'text-plum' : 'text-ink2'}`}>{heldUp}</b>
      held up
    </span>
  );
}

function heldUpWords(items: number): string {
  return items === 0 ? '' : `${countOf(items, 'item')} held up`;
}

function useAdd(): () => void {
  const { project } = useFrame();
  const makeAndOpen = useMakeAndOpen(project);
  return useCallback(() => void makeAndOpen({ kind: 'question', content: { ...EMPTY_QUESTION, title: 'New question' } }), [makeAndOpen]);
}

function useQuestionCommands(ids: readonly ArtefactId[], current: QuestionId | null, canEdit: boolean, add: () => void): void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const commands = useMemo<Command[]>(() => {
    const at = ids.findIndex((id) => id === current);
    const open = (index: number): void => {
      const id = ids[index];
      if (id !== undefined) void navigate({ pathname: address.artefact(project, id), search: window.location.search });
    };
    return [
      { id: 'next-question', title: 'Open the next question', keys: 'ArrowDown', keyLabel: '↓', run: () => open(at + 1) },
      { id: 'previous-question', title: 'Open the question before', keys: 'ArrowUp', keyLabel: '↑', run: () => open(at - 1) },
      { id: 'agenda', title: 'Open the agenda', keys: 'a', keyLabel: 'a', run: () => void navigate(address.agenda(project)) },
      ...(canEdit ? [{ id: 'new-question', title: 'New question', keys: 'n', keyLabel: 'n', changes: true, run: add }] : []),
    ];
  }, [add, canEdit, current, ids, navigate, project]);
  useCommands(commands);
}
