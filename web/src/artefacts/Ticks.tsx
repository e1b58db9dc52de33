import type { ConditionId } from '@caderno/core/artefacts';
import type { Standing } from '@caderno/core/coverage';
import { Link } from 'react-router';
import { address } from '../frame/index.ts';
import { STANDING_WORD, StandingShape } from '../look/index.ts';

interface Props {
  readonly conditions: readonly { readonly id: ConditionId; readonly standings: readonly Standing[] }[];
  /** More than this many are summed up as a number. */
  readonly most?: number;
  /** With a project, every tick leads to its condition; `nameOf` then names its item. */
  readonly project?: string;
  readonly nameOf?: (condition: ConditionId, index: number) => string | undefined;
}

/** A tick per coverage item, the conditions parted by a space. */
export function Ticks({ conditions, most = Number.POSITIVE_INFINITY, project, nameOf }: Props) {
  const all = conditions.flatMap((c) => c.standings.map((standing, index) => ({ id: c.id, standing, index })));
  const rest = all.length - most;
  return (
    <span className="inline-flex flex-wrap items-center gap-x-[1.5px] gap-y-0.5">
      {all.slice(0, most).map(({ id, standing, index }) => {
        const name = `${id}/${index + 1} ${nameOf?.(id, index) ?? ''} · ${STANDING_WORD[standing]}`;
        const space = index === 0 ? 'ml-1 first:ml-0' : '';
        return project === undefined ? (
          <span key={`${id}/${index}`} className={`inline-flex ${space}`} title={name}>
            <StandingShape standing={standing} size={9} />
          </span>
        ) : (
          <Link key={`${id}/${index}`} to={`${address.condition(project, id)}#item-${index + 1}`} className={`inline-flex p-px ${space}`} title={name} aria-label={name}>
            <StandingShape standing={standing} size={10} />
          </Link>
        );
      })}
      {rest > 0 && <span className="pl-1 text-[10.5px] text-ink2">+{rest}</span>}
    </span>
  );
}
