import { offeredOn, type Remark, type RemarkThread } from '@caderno/core/remarks';
import type { Json } from '@caderno/core/versions';
import { Pencil, Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useFrame } from '../frame/index.ts';
import { IconButton, TextButton, ago, countOf, dateAndTime } from '../look/index.ts';
import { MarkdownText } from '../text/index.ts';
import { Offered } from './Offered.tsx';
import { RemarkField } from './RemarkField.tsx';
import type { Speaking } from './useRemarks.ts';

interface Props {
  readonly thread: RemarkThread;
  /** Where it is by now, and the way there. */
  readonly place: ReactNode;
  readonly speaking: Speaking;
  /** The artefact as it is on the page: what is offered is shown against it. */
  readonly content: Json;
  readonly version: number;
  /** Makes a question of it; absent: it cannot be one. */
  readonly onAsk?: () => void;
}

/** What was said at a place, and answered. */
export function Thread({ thread, place, speaking, content, version, onAsk }: Props) {
  const { person, canEdit } = useFrame();
  const [answering, setAnswering] = useState(false);
  const { id, remarks, settled } = thread;
  const maySettle = canEdit || remarks[0]?.author === person.id;
  return (
    <li className="border-b border-rule py-1.5 last:border-b-0">
      {place}
      {remarks.map((remark) => (
        <Said key={remark.id} remark={remark} speaking={speaking}>
          {remark.offer !== null && <Offered offer={remark.offer} place={thread.place} content={content} onTake={() => speaking.takeOffer(remark.id, version)} />}
        </Said>
      ))}
      {settled !== null && <p className="italic">Settled by {settled.name}, <span title={dateAndTime(settled.at)}>{ago(settled.at)}</span></p>}
      {answering ? (
        <RemarkField label="Your answer" hint="Your answer" word="Answer" focus offeredOn={offeredOn(content, thread.place)} onSay={(text, offer) => speaking.answer(id, text, offer)} onClose={() => setAnswering(false)} />
      ) : (
        <p className="flex gap-3 print:hidden">
          <TextButton onClick={() => setAnswering(true)}>answer</TextButton>
          {maySettle && <TextButton onClick={() => void speaking.settle(id, settled === null)}>{settled === null ? 'settled' : 'open again'}</TextButton>}
          {onAsk !== undefined && settled === null && <TextButton onClick={onAsk}>make it a question</TextButton>}
        </p>
      )}
    </li>
  );
}

function Said({ remark, speaking, children }: { readonly remark: Remark; readonly speaking: Speaking; readonly children: ReactNode }) {
  const { person, canLead } = useFrame();
  const [editing, setEditing] = useState(false);
  const [showsEarlier, setShowsEarlier] = useState(false);
  const { id, author, name, text, at, editedAt, earlier, takenBackAt } = remark;
  const isMine = author === person.id;
  if (takenBackAt !== null) return <p className="py-0.5 italic">{name} took a remark back.</p>;
  return (
    <div className="group py-0.5">
      <p className="flex flex-wrap items-baseline gap-x-1.5">
        <strong className="font-semibold text-ink">{name}</strong>
        <span title={dateAndTime(at)}>{ago(at)}</span>
        {editedAt !== null && (
          <span title={`Said otherwise ${dateAndTime(editedAt)}`}>
            ·{' '}
            <TextButton aria-expanded={showsEarlier} onClick={() => setShowsEarlier(!showsEarlier)}>
              edited
            </TextButton>
          </span>
        )}
        {!editing && (isMine || canLead) && (
          <span className="ml-auto flex opacity-0 focus-within:opacity-100 group-hover:opacity-100 print:hidden">
            {isMine && <IconButton label="Edit the remark" icon={<Pencil size={12} aria-hidden="true" />} onClick={() => setEditing(true)} />}
            <IconButton label="Take the remark back" icon={<Undo2 size={12} aria-hidden="true" />} onClick={() => void speaking.takeBack(id)} />
          </span>
        )}
      </p>
      {editing ? (
        <RemarkField label="The remark" hint="" word="Save" begun={text} focus onSay={(now) => (now === text ? Promise.resolve(true) : speaking.reword(id, now))} onClose={() => setEditing(false)} />
      ) : (
        <div className="text-ink [&_.prose-text]:font-sans [&_.prose-text]:text-[12.5px] [&_.prose-text]:leading-[18px]">
          <MarkdownText text={text} />
        </div>
      )}
      {showsEarlier && <Earlier earlier={earlier} />}
      {children}
    </div>
  );
}

/** What a remark said before, the latest first. */
function Earlier({ earlier }: Pick<Remark, 'earlier'>) {
  return (
    <ul aria-label="What it said before" className="mt-1 border-l-2 border-rule2 pl-2">
      {earlier.toReversed().map(({ text, until }) => (
        <li key={until} className="py-0.5">
          until {dateAndTime(until)}
          <MarkdownText text={text} />
        </li>
      ))}
    </ul>
  );
}

/** Threads that are settled, folded to one line. */
export function Settled({ threads, children }: { readonly threads: readonly RemarkThread[]; readonly children: ReactNode }) {
  const [open, setOpen] = useState(false);
  if (threads.length === 0) return null;
  return (
    <>
      <TextButton aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'fold' : ''} {countOf(threads.length, 'thread')} settled
      </TextButton>
      {open && <ul>{children}</ul>}
    </>
  );
}
