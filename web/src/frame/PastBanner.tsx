import type { Moment } from '@caderno/contract';
import type { BaselineNumber } from '@caderno/core/baselines';
import { Link, useLocation } from 'react-router';
import { useBaselines } from '../api/index.ts';
import { dateAndTime } from '../look/index.ts';
import { address } from './address.ts';

/** A moment that is open as the whole project; `project`: the key of the one of now, `at`: when that was, `sees`: the modules that are all it holds, null for all. */
export interface Past {
  readonly project: string;
  readonly moment: Moment;
  readonly at: string;
  readonly sees: readonly string[] | null;
}

/** The moment in a few words, for the title of the browser’s tab. */
export function pastWords({ moment, at }: Past): string {
  switch (moment.kind) {
    case 'baseline':
      return `in B-${moment.baseline}`;
    case 'revision':
      return moment.agreedOnly ? `as agreed, ${dateAndTime(at)}` : `as it was, ${dateAndTime(at)}`;
    case 'part':
      return `in part, ${dateAndTime(at)}`;
  }
}

const LINK = 'font-semibold text-blue underline underline-offset-2 print:hidden';

/** Says on every page, on paper too, that this is not the project of now, and leads to the same page of it. */
export function PastBanner({ past }: { readonly past: Past }) {
  const { pathname, search } = useLocation();
  const here = pathname.split('/').slice(2).join('/');
  return (
    <p role="note" aria-label="As it was" data-on-paper className="mx-3.5 mb-1.5 flex flex-wrap items-baseline gap-x-4 gap-y-0.5 rounded-field border border-blue bg-blue-wash px-4 py-1.5 text-sm max-phone:mx-1.5">
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
        {past.moment.kind === 'part' ? 'Look for what is newer' : 'This page now'}
      </Link>
    </p>
  );
}

function What({ past: { project, moment, at, sees } }: { readonly past: Past }) {
  switch (moment.kind) {
    case 'baseline':
      return <OfBaseline project={project} number={moment.baseline} at={at} />;
    case 'part':
      return (
        <>
          <b className="font-semibold">Only {listed(sees ?? [])}</b> and what they use, as of {dateAndTime(at)}.
        </>
      );
    case 'revision':
      if (!moment.agreedOnly) {
        return (
          <>
            <b className="font-semibold">The project as it was</b> on {dateAndTime(at)}.
          </>
        );
      }
      return (
        <>
          <b className="font-semibold">Only what is agreed</b>, as of {dateAndTime(at)}: cases and what they use, each at the version agreed last. Requirements and conditions that nobody agreed to stand as they are.
        </>
      );
  }
}

/** `Bills, Meters and Payments`. */
function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

function OfBaseline({ project, number, at }: { readonly project: string; readonly number: BaselineNumber; readonly at: string }) {
  const taken = useBaselines(project).data?.find((b) => b.number === number);
  return (
    <>
      <b className="font-semibold">The project as it was in B-{number}</b>
      {taken !== undefined && ` ${taken.name}`}, {dateAndTime(at)}
      {taken === undefined || taken.part === '' ? '' : `, of ${taken.part} only`}.
    </>
  );
}
