import { notedWords, type HandOffNumber } from '@caderno/core/handOffs';
import type { ReturnedNotes } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, failureSentence } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf, locale } from '../look/index.ts';
import { WordDiff } from '../versions/index.ts';

interface Props {
  readonly number: HandOffNumber;
  readonly returned: ReturnedNotes;
  readonly onClose: () => void;
}

type Proposal = ReturnedNotes['proposals'][number];

const WHY: Record<ReturnedNotes['unplaced'][number]['why'], string> = {
  unknownInstance: 'no such instance was handed off',
  unknownStep: 'it has no such step',
  otherHandOff: 'of another hand-off or project',
  tooLong: 'longer than a remark may be',
};

/** What came back, each note with its place: those that are ticked become remarks there, a changed text is offered as a change. */
export function ReturnedDialog({ number, returned: { by, proposals, total, unplaced, unplacedTotal }, onClose }: Props) {
  const { project } = useFrame();
  const [put, setPut] = useState<ReadonlySet<string>>(() => new Set(proposals.flatMap((p) => (p.there ? [p.remark] : []))));
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<readonly string[]>([]);
  const wanted = proposals.filter((p) => !put.has(p.remark) && !out.has(p.remark));
  const take = async (): Promise<void> => {
    setBusy(true);
    const [done, wrong] = [new Set(put), [] as string[]];
    for (const proposal of wanted) {
      try {
        await begin(project, number, by, proposal);
        done.add(proposal.remark);
        setPut(new Set(done));
      } catch (error) {
        wrong.push(`${proposal.of}: ${failureSentence(error)}`);
      }
    }
    setFailed(wrong);
    setBusy(false);
    if (wrong.length > 0) return;
    toast.success(`${countOf(wanted.length, 'remark')} put at ${wanted.length === 1 ? 'its place' : 'their places'}.`);
    onClose();
  };
  return (
    <Dialog title={`What came back of H-${number}${by === '' ? '' : `, from ${by}`}`} onClose={onClose} wide>
      <div className="space-y-3 text-sm">
        {total === 0 && unplacedTotal === 0 && <p>Nothing was remarked, changed or timed in it.</p>}
        {proposals.length > 0 && (
          <>
            <p className="text-ink2">
              Each becomes a remark where it is written; a changed text is offered there as a change. <TextButton onClick={() => setOut(new Set(out.size === 0 ? proposals.map((p) => p.remark) : []))}>{out.size === 0 ? 'untick all' : 'tick all'}</TextButton>
            </p>
            <ul aria-label="What came back" tabIndex={0} className="max-h-[50vh] overflow-y-auto border-y border-rule2">
              {proposals.map((proposal) => (
                <Line key={proposal.remark} proposal={proposal} isPut={put.has(proposal.remark)} isOut={out.has(proposal.remark)} onOut={(isOut) => setOut(isOut ? new Set([...out, proposal.remark]) : new Set([...out].filter((r) => r !== proposal.remark)))} />
              ))}
            </ul>
          </>
        )}
        {total > proposals.length && <p className="text-ochre-ink">These are the first {proposals.length.toLocaleString(locale())} of {total.toLocaleString(locale())}. Put them at their places, and bring the file again for the rest.</p>}
        {unplacedTotal > 0 && <Unplaced unplaced={unplaced} total={unplacedTotal} />}
        {failed.length > 0 && (
          <div role="alert" className="text-brick">
            {failed.map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{wanted.length === 0 ? 'Close' : 'Cancel'}</Button>
          {wanted.length > 0 && (
            <Button look="accent" disabled={busy} onClick={() => void take()}>
              {busy ? 'Putting them there …' : `Put ${countOf(wanted.length, 'remark')} there`}
            </Button>
          )}
        </div>
      </div>
    </Dialog>
  );
}

/** The same remark again changes nothing, so that one that was sent without an answer is sent again. */
async function begin(project: string, number: HandOffNumber, by: string, proposal: Proposal): Promise<void> {
  const { of, remark, place, said, version, text, offer } = proposal;
  await call('beginThread', { params: { project, id: of }, body: { remark, place, said, version, text: `${text}\n\n${notedWords(number, by, proposal)}`.slice(0, 5_000).toWellFormed(), ...(offer === null ? {} : { offer }) } });
}

interface LineProps {
  readonly proposal: Proposal;
  readonly isPut: boolean;
  readonly isOut: boolean;
  readonly onOut: (isOut: boolean) => void;
}

function Line({ proposal: { of, said, text, offer, instances, step }, isPut, isOut, onOut }: LineProps) {
  const { project } = useFrame();
  const [first = ''] = instances;
  return (
    <li className={`grid grid-cols-[1.5rem_3.5rem_minmax(0,1fr)] items-baseline gap-x-2 border-b border-rule py-1.5 last:border-0 ${isPut || isOut ? 'text-ink2' : ''}`}>
      <input type="checkbox" aria-label={`Put at ${of}: ${text.slice(0, 60)}`} checked={!isOut && !isPut} disabled={isPut} onChange={(event) => onOut(!event.target.checked)} />
      <Link className="font-mono text-xs underline decoration-rule2" to={address.artefact(project, of)}>{of}</Link>
      <span className="min-w-0 break-words">
        {offer === null ? <span className="whitespace-pre-line">{text}</span> : <WordDiff from={said} to={text.replace(/^Executed as: /, '')} />}
        <span className="block text-xs text-ink2">
          {first}
          {instances.length > 1 && ` and ${countOf(instances.length - 1, 'other')}`}
          {step !== null && `, step ${step}`}
          {said !== '' && offer === null && `: ${said}`}
          {isPut && ' · at its place already'}
        </span>
      </span>
    </li>
  );
}

function Unplaced({ unplaced, total }: { readonly unplaced: ReturnedNotes['unplaced']; readonly total: number }) {
  const kinds = [...new Set(unplaced.map((u) => u.why))];
  return (
    <div className="rounded-field bg-ochre-wash px-3 py-1.5 text-ochre-ink">
      <p>{total === 1 ? 'One note has no place and stays in the file:' : `${total.toLocaleString(locale())} notes have no place and stay in the file:`}</p>
      <ul className="text-xs">
        {kinds.map((why) => {
          const some = unplaced.filter((u) => u.why === why);
          return (
            <li key={why}>
              {some.slice(0, 5).map((u) => `${u.instance === '' ? 'a row without an instance' : u.instance}${u.step === null ? '' : `, step ${u.step}`}`).join('; ')}
              {some.length > 5 && ` and ${(some.length - 5).toLocaleString(locale())} more`}: {WHY[why]}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
