import { itemsToShow, linkedRatio, percentDown, shownRatio, type StandingCounts } from '@caderno/core/coverage';
import { Link } from 'react-router';
import { Section } from '../look/index.ts';

interface Bar {
  readonly name: string;
  readonly counts: StandingCounts;
  readonly to: string;
}

/** Shares as bars: shown, then what is only linked. Each leads to the items behind it. */
export function Bars({ title, bars }: { readonly title: string; readonly bars: readonly Bar[] }) {
  return (
    <Section title={title} aside="shown, then linked">
      <ul className="pt-1">
        {bars.map(({ name, counts, to }) => {
          const shown = percentDown(shownRatio(counts));
          const linked = percentDown(linkedRatio(counts)) ?? 0;
          return (
            <li key={name}>
              <Link to={to} className="grid min-h-7 grid-cols-[minmax(96px,132px)_1fr_44px_60px] items-center gap-3 hover:bg-page2" title={`${counts.shown} of ${itemsToShow(counts)} items shown`}>
                <span className="truncate text-sm">{name}</span>
                <span className="flex h-[9px] overflow-hidden rounded-[2px] border border-rule2 bg-page" aria-hidden="true">
                  <span className="bg-pine" style={{ width: `${shown ?? 0}%` }} />
                  <span className="bg-[repeating-linear-gradient(45deg,var(--color-ochre)_0_3px,var(--color-ochre-wash)_3px_6px)]" style={{ width: `${linked - (shown ?? 0)}%` }} />
                </span>
                <span className="text-right font-mono text-xs">{shown === null ? '–' : `${shown} %`}</span>
                <span className="text-right font-mono text-xs text-ink2">
                  {counts.shown}/{itemsToShow(counts)}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}
