import { answerOf } from '@caderno/core/reviews';
import type { Review } from '@caderno/contract';
import { dateAndTime } from '../look/index.ts';
import { ITEM_WORD, countsOf, dueWords, endWords, progressWords } from './reviewWords.ts';

/** The record of a review on paper: what was asked for in which version, and who said what when. */
export function ReviewRecord({ review }: { readonly review: Review }) {
  const { number, title, note, by, at, due, endedAt, asked, items } = review;
  const counts = countsOf(items);
  return (
    <article className="hidden print:block" aria-label="Record of the review">
      <p className="text-xs">Record of review {number}</p>
      <h1 className="font-serif text-2xl font-semibold">{title}</h1>
      {note !== '' && <p className="mt-1 whitespace-pre-wrap">{note}</p>}
      <p className="mt-1 text-sm">
        Asked by {by}, {dateAndTime(at)}
        {due !== null && `, until ${dueWords(due)}`}, of {asked.map((a) => a.name).join(', ')}
      </p>
      <p className="text-sm">{endedAt === null ? `It goes on: ${progressWords(counts)}` : `Ended ${dateAndTime(endedAt)} (${endWords({ ...review, counts })}): ${progressWords(counts)}`}</p>
      <table className="mt-3 w-full text-sm">
        <thead>
          <tr className="border-b border-ink text-left">
            <th className="py-1 pr-3">Artefact</th>
            <th className="py-1 pr-3">Version</th>
            <th className="py-1 pr-3">Before</th>
            <th className="py-1 pr-3">Standing</th>
            <th className="py-1">Answers</th>
          </tr>
        </thead>
        <tbody>
          {items.map((item) => (
            <tr key={item.id} className="break-inside-avoid border-b border-rule align-top">
              <td className="py-1 pr-3">
                <span className="font-mono text-xs">{item.id}</span> {item.title}
              </td>
              <td className="py-1 pr-3">v{item.version}</td>
              <td className="py-1 pr-3">{item.since === null ? 'new' : `v${item.since}`}</td>
              <td className="py-1 pr-3">{ITEM_WORD[item.standing]}</td>
              <td className="py-1">
                {item.answers
                  .filter((a) => answerOf(item.answers, a.person, a.version) === a)
                  .map((a) => (
                    <p key={`${a.person} ${a.version}`}>
                      {a.name} {a.agrees ? 'agreed' : 'objected'} to v{a.version}, {dateAndTime(a.at)}
                      {a.note !== '' && `: “${a.note}”`}
                    </p>
                  ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </article>
  );
}
