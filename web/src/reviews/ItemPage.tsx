import { kindOfId } from '@caderno/core/artefacts';
import { withItems } from '@caderno/core/remarks';
import { answerOf, mayAgree, neededOf, seenUpTo } from '@caderno/core/reviews';
import type { Review, ReviewItem } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSettings, useVersion } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Choose, KIND_NAME, ReasonForm, TextButton, ago, dateAndTime } from '../look/index.ts';
import { Remarks, type PagePlace } from '../remarks/index.ts';
import { Contents, Difference } from '../versions/index.ts';
import { ITEM_INK, ITEM_WORD } from './reviewWords.ts';
import type { Answering } from './useAnswering.ts';

interface Props {
  readonly review: Review;
  readonly item: ReviewItem;
  readonly answering: Answering;
}

/** One artefact of a review: what changed since it was agreed, or all of it, the answers to it, and one’s own. */
export function ItemPage({ review, item, answering }: Props) {
  const { project, person } = useFrame();
  const { id, title, version, since, head, standing, answers } = item;
  const seen = seenUpTo(item, answers, person.id);
  const [from, setFrom] = useState<string | null>(null);
  const before = from === null ? seen : from === '' ? null : Number(from);
  const now = useVersion(project, id, version).data;
  const then = useVersion(project, id, before).data;
  const [remarking, setRemarking] = useState<PagePlace | null>(null);
  const beside = (field: string) => (
    <TextButton className="text-xs font-normal text-ink2 opacity-0 focus-visible:opacity-100 group-hover:opacity-100" onClick={() => setRemarking({ path: field, words: null })}>
      remark
    </TextButton>
  );
  const choices = [...new Set([seen, since])].flatMap((v) => (v === null ? [] : [{ value: String(v), name: v === since ? `since v${v}, which was agreed` : `since v${v}, to which you agreed` }]));
  return (
    <article className="px-8 pb-12 pt-5 max-phone:px-4">
      <div className="flex flex-wrap items-baseline gap-x-3 text-xs text-ink2">
        <span>
          {KIND_NAME[kindOfId(id)][0]} <span className="font-mono">{id}</span>, v{version}
        </span>
        <span className={`font-semibold ${ITEM_INK[standing]}`}>{ITEM_WORD[standing]}</span>
        {head > version && standing === 'objected' && <span className="text-ochre-ink">mended since, v{head}</span>}
        <Link className="ml-auto underline" to={address.artefact(project, id)}>
          Open {id}
        </Link>
      </div>
      <h2 className="mt-1 font-serif text-2xl font-semibold">{title}</h2>
      <Answers review={review} item={item} />
      <Answer item={item} answering={answering} />
      <div className="mt-4 flex items-center gap-3 border-b border-ink pb-1">
        <h3 className="font-serif text-lg font-semibold">{before === null ? 'What it says' : `What changed since v${before}`}</h3>
        {choices.length > 0 && <Choose label="Show" value={before === null ? '' : String(before)} options={[...choices, { value: '', name: 'all that it says' }]} onChange={setFrom} />}
      </div>
      {now === undefined || (before !== null && then === undefined) ? (
        <p className="mt-4 text-ink2">Reading …</p>
      ) : before === null || then === undefined ? (
        <Contents content={now.content} beside={beside} />
      ) : (
        <Difference from={then.content} to={now.content} beside={beside} />
      )}
      {now !== undefined && <Remarks place="page" id={id} version={version} content={now.kind === 'condition' ? withItems(now.content) : now.content} asked={remarking} onAsked={() => setRemarking(null)} />}
    </article>
  );
}

/** What people said of the version that is asked for, and of those before it. */
function Answers({ review, item }: { readonly review: Review; readonly item: ReviewItem }) {
  const { project } = useFrame();
  const agreement = useSettings(project).data?.settings.agreement;
  const said = item.answers.filter((a) => answerOf(item.answers, a.person, a.version) === a);
  const counting = agreement === undefined ? null : new Set(mayAgree(item, review.asked, agreement).map((a) => a.person));
  const hopeless = agreement !== undefined && item.standing === 'waiting' && neededOf(item, review.asked, agreement) === null;
  return (
    <>
      {hopeless && <p className="mt-2 rounded-field bg-ochre-wash px-3 py-1.5 text-sm text-ochre-ink">Too few of those asked may agree to it: who wrote it does not count. Edit the review to ask more people.</p>}
      <ul aria-label="Answers" className="mt-2 space-y-0.5 text-sm empty:hidden">
        {said.map((a) => (
          <li key={`${a.person} ${a.version}`} className={a.version === item.version ? '' : 'text-ink2'}>
            <strong className="font-semibold">{a.name}</strong> {a.agrees ? <span className="text-pine">agreed</span> : <span className="text-brick">objected</span>} to v{a.version}, <span title={dateAndTime(a.at)}>{ago(a.at)}</span>
            {a.agrees && a.version === item.version && counting?.has(a.person) === false && <span className="text-ink2"> (does not count: {item.authors.includes(a.person) ? 'wrote it' : 'may not agree'})</span>}
            {a.note !== '' && <>: “{a.note}”</>}
          </li>
        ))}
      </ul>
    </>
  );
}

/** One’s own answer to it. */
function Answer({ item, answering }: { readonly item: ReviewItem; readonly answering: Answering }) {
  const { person } = useFrame();
  if (!answering.mayAnswer || item.standing === 'left') return null;
  const mine = answerOf(item.answers, person.id, item.version);
  if (answering.objecting === item.id) return <ReasonForm label="Why you object" placeholder="What is wrong with it" action="Object" onGive={(why) => answering.object([item], why)} onCancel={() => answering.setObjecting(null)} />;
  return (
    <p className="mt-3 flex flex-wrap items-center gap-2">
      {mine?.agrees !== true && (
        <Button look="accent" disabled={answering.busy} title="a" onClick={() => answering.agree([item])}>
          Agree to v{item.version}
        </Button>
      )}
      {mine?.agrees !== false && (
        <Button disabled={answering.busy} title="o" onClick={() => answering.setObjecting(item.id)}>
          Object …
        </Button>
      )}
      {mine !== null && <span className="text-sm text-ink2">You {mine.agrees ? 'agreed' : 'objected'}; you may still say otherwise.</span>}
    </p>
  );
}
