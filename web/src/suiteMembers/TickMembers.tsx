import type { CoveringId } from '@caderno/core/artefacts';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { locale, Tick } from '../look/index.ts';

export interface Ticked {
  readonly id: CoveringId;
  readonly title: string;
  /** At the end of the line. */
  readonly note?: string;
}

interface Props {
  readonly label: string;
  readonly offered: readonly Ticked[];
  readonly ticked: ReadonlySet<CoveringId>;
  readonly onTick: (ticked: ReadonlySet<CoveringId>) => void;
}

const MOST_SHOWN = 300;

/** Cases and scenarios to be ticked; each leads to its page. */
export function TickMembers({ label, offered, ticked, onTick }: Props) {
  const { project } = useFrame();
  return (
    <>
      <ul aria-label={label} className="max-h-[50vh] overflow-y-auto text-sm" tabIndex={0}>
        {offered.slice(0, MOST_SHOWN).map(({ id, title, note }) => (
          <li key={id} className="flex min-h-8 items-center gap-2.5 border-b border-rule">
            <Tick checked={ticked.has(id)} onChange={(isTicked) => onTick(new Set(isTicked ? [...ticked, id] : [...ticked].filter((other) => other !== id)))} className="min-w-0 flex-1 py-1">
              <span className="min-w-0 flex-1">{title}</span>
            </Tick>
            {note !== undefined && <span className="shrink-0 text-xs text-ink2">{note}</span>}
            <Link to={address.covering(project, id)} className="w-14 shrink-0 font-mono text-xs underline decoration-rule2 leading-6">
              {id}
            </Link>
          </li>
        ))}
      </ul>
      {offered.length > MOST_SHOWN && <p className="mt-1 text-xs text-ink2">and {(offered.length - MOST_SHOWN).toLocaleString(locale())} more, which are not shown here</p>}
    </>
  );
}
