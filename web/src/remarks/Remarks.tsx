import { kindOfId, type ArtefactId } from '@caderno/core/artefacts';
import { byPlace, isTakenBack, offeredOn, placeNow, placeOn, saidAt, WHOLE, type RemarkThread } from '@caderno/core/remarks';
import { asJson } from '@caderno/core/versions';
import { useCallback, useMemo, useState } from 'react';
import { MarginNote, useRaiseQuestion } from '../artefacts/index.ts';
import { useCommands, useFrame, type Command } from '../frame/index.ts';
import { Section, TextButton } from '../look/index.ts';
import { pathWords } from '../versions/index.ts';
import { questionTitle, subjectsOf } from './asQuestion.ts';
import { PlaceMarks } from './PlaceMarks.tsx';
import { RemarkField } from './RemarkField.tsx';
import { Settled, Thread } from './Thread.tsx';
import { goToPlace, useLastPlace, type PagePlace } from './useLastPlace.ts';
import { useRemarks } from './useRemarks.ts';

interface Props {
  readonly id: ArtefactId;
  readonly version: number;
  /** With what is being written. */
  readonly content: object;
  /** `page`: of a page without a margin. */
  readonly place?: 'margin' | 'page';
  /** Where one is on the page, where the page knows better than the focus. */
  readonly here?: string | null;
  /** Words the page asks to say something of. */
  readonly asked?: PagePlace | null;
  /** They were answered, or left. */
  readonly onAsked?: () => void;
}

/** What people say of an artefact and at places in it, in the margin: in the order of the places, settled ones folded. Of how it was nobody talks. */
export function Remarks(props: Props) {
  return useFrame().isPast ? null : <Threads {...props} />;
}

function Threads({ id, version, content, place = 'margin', here = null, asked = null, onAsked }: Props) {
  const { canEdit } = useFrame();
  const { threads, speaking } = useRemarks(id);
  const lastPlace = useLastPlace();
  const [begun, setBegun] = useState<PagePlace | null>(null);
  const writing = asked ?? begun;
  const setWriting = (at: PagePlace | null): void => {
    setBegun(at);
    onAsked?.();
  };
  const whereOneIs = useCallback((): PagePlace => (here === null ? (lastPlace() ?? ON_ALL) : { path: here, words: null }), [here, lastPlace]);
  const commands = useMemo<Command[]>(() => [{ id: 'remark', title: 'Remark on where you are', keys: 'Alt+r', keyLabel: 'Alt R', whileTyping: true, run: () => setBegun(whereOneIs()) }], [whereOneIs]);
  useCommands(commands);
  const json = asJson(content);
  const shown = useMemo(() => (threads ?? []).filter((t) => !isTakenBack(t)).toSorted((a, b) => byPlace(json)(a.place, b.place)), [json, threads]);
  const open = shown.filter((t) => t.settled === null);
  const settled = shown.filter((t) => t.settled !== null);
  const raise = useRaiseQuestion();
  const ask = (thread: RemarkThread): void => {
    const text = thread.remarks.find((r) => r.takenBackAt === null)?.text ?? '';
    raise(subjectsOf(id, json, thread), questionTitle(text), text, (question) => speaking.answer(thread.id, `Asked as ${question}.`));
  };
  const lines = (some: readonly RemarkThread[]) => some.map((thread) => <Thread key={thread.id} thread={thread} speaking={speaking} content={json} version={version} {...(canEdit && kindOfId(id) !== 'question' ? { onAsk: () => ask(thread) } : {})} place={<PlaceLine thread={thread} content={json} />} />);
  const on = writing === null || writing.path === '' ? WHOLE : placeOn(json, writing.path, writing.words);
  const begin = (text: string, offer: string | null): Promise<boolean> => speaking.begin(on, saidAt(json, on), version, text, offer);
  const Around = place === 'margin' ? MarginNote : Section;
  return (
    <Around title={open.length === 0 ? 'Remarks' : `Remarks · ${open.length}`}>
      <PlaceMarks paths={open.map((t) => t.place.path)} />
      {writing === null ? (
        <p className="print:hidden">
          <TextButton title="On where you were on the page; Alt R does the same" onClick={() => setWriting(whereOneIs())}>Write one</TextButton>
        </p>
      ) : (
        <div className="my-1 print:hidden">
          <p>
            On <strong className="font-semibold text-ink">{wordsOf(writing, json)}</strong>{' '}
            {writing.path !== '' && <TextButton onClick={() => setWriting(ON_ALL)}>on all of it</TextButton>}
          </p>
          <RemarkField key={`${writing.path} ${writing.words?.start ?? ''}`} label={`Remark on ${id}`} hint="What you want to say; @ names people" word="Remark" focus offeredOn={offeredOn(json, on)} onSay={begin} onClose={() => setWriting(null)} />
        </div>
      )}
      <ul aria-label={`Remarks on ${id}`}>{lines(open)}</ul>
      <Settled threads={settled}>{lines(settled)}</Settled>
    </Around>
  );
}

const ON_ALL: PagePlace = { path: '', words: null };

function wordsOf({ path, words }: PagePlace, content: ReturnType<typeof asJson>): string {
  if (path === '') return 'all of it';
  return words === null ? lowered(pathWords(path, [content])) : `“${saidAt(content, placeOn(content, path, words)).slice(0, 60)}”`;
}

function lowered(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

/** Where a thread is by now; one whose place is gone tells what stood there. */
function PlaceLine({ thread: { place, said }, content }: { readonly thread: RemarkThread; readonly content: ReturnType<typeof asJson> }) {
  const now = placeNow(content, place);
  const quote = said === '' ? null : <q className="text-ink2">{said.length > 80 ? `${said.slice(0, 80)}…` : said}</q>;
  if (now.kind === 'whole') return null;
  if (now.kind === 'gone') return <p className="text-ochre-ink">It was on something that is gone{quote !== null && <>: {quote}</>}</p>;
  return (
    <p>
      <TextButton data-on-paper onClick={() => goToPlace(place.path)}>{pathWords(place.path, [content])}</TextButton>
      {place.words !== null && <> {quote}</>}
      {now.words === 'gone' && <span className="text-ochre-ink"> the words are gone</span>}
    </p>
  );
}
