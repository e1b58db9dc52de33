import { percentDown, shownRatio } from '@caderno/core/coverage';
import { baselineNumberSchema, type Baseline } from '@caderno/contract';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useBaselines } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, address, useFrame } from '../frame/index.ts';
import { Button, Empty, ago, countOf, dateAndTime } from '../look/index.ts';
import { TakeBaseline } from '../takeBaseline/index.ts';
import { BaselinePage } from './BaselinePage.tsx';

/** Baselines on a line of time at the left; at the right what is in one, and what changed since. */
export function BaselinesChapter() {
  const { project, canEdit } = useFrame();
  const { data, error } = useBaselines(project);
  const [taking, setTaking] = useState(false);
  const parsed = baselineNumberSchema.safeParse(useParams().baseline);
  if (data === undefined) return <Loading error={error} />;
  const opened = parsed.success ? data.find((b) => b.number === parsed.data) : data[0];
  const button = canEdit && (
    <Button look={data.length === 0 ? 'accent' : 'plain'} onClick={() => setTaking(true)}>
      Take a baseline
    </Button>
  );
  return (
    <>
      <Spread
        chapter="baselines"
        leftShare={34}
        leftLabel="Baselines"
        rightLabel="Baseline"
        left={
          <div className="flex h-full flex-col">
            <header className="flex items-center gap-3 px-5 pb-2.5 pt-5">
              <h1 className="font-serif text-xl font-semibold">Baselines</h1>
              <span className="text-xs text-ink2">{data.length}</span>
              <span className="ml-auto print:hidden">{data.length > 0 && button}</span>
            </header>
            <ul aria-label="Baselines" className="min-h-0 flex-1 overflow-y-auto border-t border-rule2">
              {data.map((baseline) => (
                <Line key={baseline.number} baseline={baseline} isCurrent={baseline === opened} />
              ))}
            </ul>
          </div>
        }
        right={
          opened !== undefined ? (
            <BaselinePage key={opened.number} baseline={opened} others={data.filter((b) => b !== opened)} />
          ) : data.length === 0 ? (
            <Empty title="No baseline yet" action={button}>
              A baseline freezes the exact versions of everything, with the coverage of that moment: what was agreed for a release, say. Nobody can change it, and what changed since is told.
            </Empty>
          ) : (
            <Empty title="No such baseline">The address names none of this project.</Empty>
          )
        }
      />
      {taking && <TakeBaseline onClose={() => setTaking(false)} />}
    </>
  );
}

function Line({ baseline, isCurrent }: { readonly baseline: Baseline; readonly isCurrent: boolean }) {
  const { project } = useFrame();
  const { number, name, by, at, part, counts, coverage } = baseline;
  const percent = coverage === null ? null : percentDown(shownRatio(coverage.counts));
  return (
    <li className={`border-b border-rule ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      <Link to={address.baselines(project, number)} aria-current={isCurrent ? 'page' : undefined} className="block px-5 py-2.5">
        <span className="flex items-baseline gap-3">
          <span className="w-8 shrink-0 font-mono text-xs text-ink2">B-{number}</span>
          <span className="min-w-0 flex-1 font-semibold">{name}</span>
          {percent !== null && <span className="text-sm">{percent} %</span>}
        </span>
        <span className="mt-0.5 flex flex-wrap gap-x-3 pl-11 text-xs text-ink2">
          <span title={dateAndTime(at)}>
            {by}, {ago(at)}
          </span>
          <span>{part === '' ? 'everything' : `of ${part}`}</span>
          <span>{countOf(counts.case ?? 0, 'case')}</span>
        </span>
      </Link>
    </li>
  );
}
