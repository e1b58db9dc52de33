import type { BaselineNumber } from '@caderno/core/baselines';
import { Link, useLocation } from 'react-router';
import { useBaselines } from '../api/index.ts';
import { dateAndTime } from '../look/index.ts';
import { address } from './address.ts';

/** A baseline that is open as the whole project; `project`: the key of the one of now. */
export interface Past {
  readonly project: string;
  readonly baseline: BaselineNumber;
}

/** Says on every page, on paper too, that this is not the project of now, and leads to the same page of it. */
export function PastBanner({ past: { project, baseline } }: { readonly past: Past }) {
  const taken = useBaselines(project).data?.find((b) => b.number === baseline);
  const { pathname, search } = useLocation();
  const here = pathname.split('/').slice(2).join('/');
  const link = 'font-semibold text-blue underline underline-offset-2';
  return (
    <div role="note" aria-label="As it was" data-on-paper className="mx-3.5 mb-1.5 flex flex-wrap items-baseline gap-x-4 gap-y-0.5 rounded-[5px] border border-blue bg-blue-wash px-4 py-1.5 text-sm max-[700px]:mx-1.5">
      <span className="min-w-0 flex-1">
        <b className="font-semibold">The project as it was in B-{baseline}</b>
        {taken !== undefined && (
          <>
            {' '}
            {taken.name}, {dateAndTime(taken.at)}
            {taken.part === '' ? '' : `, of ${taken.part} only`}
          </>
        )}
        . Nothing can be changed here.
      </span>
      <Link className={`${link} print:hidden`} to={address.baselines(project, baseline)}>
        What changed since
      </Link>
      <Link className={`${link} print:hidden`} to={`/${project}/${here}${search}`}>
        This page now
      </Link>
    </div>
  );
}
