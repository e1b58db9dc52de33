import type { Moment } from '@caderno/contract';
import { Link, useLocation } from 'react-router';
import { useBaselines } from '../api/index.ts';
import { dateAndTime } from '../look/index.ts';
import { address } from './address.ts';

/** A moment that is open as the whole project; `project`: the key of the one of now, `at`: when that was. */
export interface Past {
  readonly project: string;
  readonly moment: Moment;
  readonly at: string;
}

/** The moment in a few words, for the title of the browser’s tab. */
export function pastWords({ moment, at }: Past): string {
  if (moment.kind === 'baseline') return `in B-${moment.baseline}`;
  return moment.agreedOnly ? `as agreed, ${dateAndTime(at)}` : `as it was, ${dateAndTime(at)}`;
}

const LINK = 'font-semibold text-blue underline underline-offset-2 print:hidden';

/** Says on every page, on paper too, that this is not the project of now, and leads to the same page of it. */
export function PastBanner({ past }: { readonly past: Past }) {
  const { pathname, search } = useLocation();
  const here = pathname.split('/').slice(2).join('/');
  return (
    <div role="note" aria-label="As it was" data-on-paper className="mx-3.5 mb-1.5 flex flex-wrap items-baseline gap-x-4 gap-y-0.5 rounded-[5px] border border-blue bg-blue-wash px-4 py-1.5 text-sm max-[700px]:mx-1.5">
      <span className="min-w-0 flex-1">
        <What past={past} /> Nothing can be changed here.
      </span>
      {past.moment.kind === 'baseline' && (
        <Link className={LINK} to={address.baselines(past.project, past.moment.baseline)}>
          What changed since
        </Link>
      )}
      {past.moment.kind === 'revision' && !past.moment.agreedOnly && (
        <Link className={LINK} to={address.journal(past.project)}>
          Journal
        </Link>
      )}
      <Link className={LINK} to={`/${past.project}/${here}${search}`}>
        This page now
      </Link>
    </div>
  );
}

function What({ past: { project, moment, at } }: { readonly past: Past }) {
  const baselines = useBaselines(project).data;
  if (moment.kind === 'revision' && moment.agreedOnly) {
    return (
      <>
        <b className="font-semibold">Only what is agreed</b>, as of {dateAndTime(at)}: cases and what they use, each at the version agreed last. Requirements and conditions that nobody agreed to stand as they are.
      </>
    );
  }
  if (moment.kind === 'revision') {
    return (
      <>
        <b className="font-semibold">The project as it was</b> on {dateAndTime(at)}.
      </>
    );
  }
  const taken = baselines?.find((b) => b.number === moment.baseline);
  return (
    <>
      <b className="font-semibold">The project as it was in B-{moment.baseline}</b>
      {taken !== undefined && ` ${taken.name}`}, {dateAndTime(at)}
      {taken === undefined || taken.part === '' ? '' : `, of ${taken.part} only`}.
    </>
  );
}
