import type { ConditionId } from '@caderno/core/artefacts';
import type { Standing } from '@caderno/core/coverage';
import { useNavigate } from 'react-router';
import { address } from '../frame/index.ts';
import { STANDING_WORD, StandingShape } from '../look/index.ts';

interface Props {
  readonly conditions: readonly { readonly id: ConditionId; readonly standings: readonly Standing[] }[];
  /** More than this many are summed up as a number. */
  readonly most?: number;
}

/** A tick per coverage item, the conditions parted by a space. */
export function Ticks({ conditions, most = Number.POSITIVE_INFINITY }: Props) {
  const all = ticksOf(conditions);
  const rest = all.length - most;
  return (
    <span className="inline-flex flex-wrap items-center gap-x-[1.5px] gap-y-0.5">
      {all.slice(0, most).map(({ id, standing, index }) => (
        <span key={`${id}/${index}`} className={`inline-flex ${index === 0 ? 'ml-1 first:ml-0' : ''}`} title={`${id}/${index + 1} · ${STANDING_WORD[standing]}`}>
          <StandingShape standing={standing} size={9} />
        </span>
      ))}
      {rest > 0 && <span className="pl-1 text-[10.5px] text-ink2">+{rest}</span>}
    </span>
  );
}

interface OpenTicksProps {
  readonly project: string;
  readonly conditions: Props['conditions'];
  readonly nameOf: (condition: ConditionId, index: number) => string | undefined;
}

/**
 * Ticks that name their item and lead to it. They are too small to be targets of their own: by keyboard, and for
 * whoever cannot hit them, the number beside them opens the same items as a list.
 */
export function OpenTicks({ project, conditions, nameOf }: OpenTicksProps) {
  const navigate = useNavigate();
  const open = (event: React.MouseEvent): void => {
    const tick = (event.target as Element).closest<HTMLElement>('[data-condition]');
    if (tick?.dataset.condition !== undefined) void navigate(`${address.condition(project, tick.dataset.condition as ConditionId)}#item-${tick.dataset.item}`);
  };
  return (
    <span className="flex flex-wrap items-center gap-y-0.5" onClick={open}>
      {ticksOf(conditions).map(({ id, standing, index }) => (
        <span key={`${id}/${index}`} data-condition={id} data-item={index + 1} className={`inline-flex cursor-pointer p-px ${index === 0 ? 'ml-1.5 first:ml-0' : ''}`} title={`${id}/${index + 1} ${nameOf(id, index) ?? ''} · ${STANDING_WORD[standing]}`}>
          <StandingShape standing={standing} size={10} />
        </span>
      ))}
    </span>
  );
}

function ticksOf(conditions: Props['conditions']): { id: ConditionId; standing: Standing; index: number }[] {
  return conditions.flatMap((c) => c.standings.map((standing, index) => ({ id: c.id, standing, index })));
}
