import type { ConditionId } from '@caderno/core/artefacts';
import type { ItemKey } from '@caderno/core/conditions';
import type { InstanceRef, ItemCoverage } from '@caderno/core/coverage';
import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { ReasonForm, STANDING_WORD, StandingShape, TextButton } from '../look/index.ts';

interface Props {
  readonly condition: ConditionId;
  readonly items: readonly ItemCoverage[];
  /** What can be done with an item nothing shows; absent for readers. */
  readonly onAdd?: (item: ItemKey) => void;
  readonly onLeaveOut?: (item: ItemKey, reason: string) => void;
  readonly onTakeBack?: (item: ItemKey) => void;
  readonly onAsk?: (item: ItemKey) => void;
}

/** What has to be shown, with the standing of each item and what shows it. */
export function ItemList({ condition, items, ...actions }: Props) {
  const { hash } = useLocation();
  useEffect(() => {
    if (hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'center' });
  }, [hash, items.length]);
  return (
    <ol aria-label="Coverage items">
      {items.map((item) => (
        <Item key={item.item.key} condition={condition} coverage={item} marked={hash === `#item-${item.item.number}`} {...actions} />
      ))}
    </ol>
  );
}

interface ItemProps extends Omit<Props, 'items'> {
  readonly coverage: ItemCoverage;
  readonly marked: boolean;
}

function Item({ condition, coverage, marked, onAdd, onLeaveOut, onTakeBack, onAsk }: ItemProps) {
  const [leaving, setLeaving] = useState(false);
  const { item, standing, shownBy, leftOut } = coverage;
  const open = standing === 'gap' || standing === 'linked';
  const ink = standing === 'gap' ? 'text-brick' : '';
  return (
    <li id={`item-${item.number}`} className={`grid min-h-[30px] grid-cols-[16px_minmax(120px,1fr)_minmax(90px,0.9fr)_minmax(180px,2fr)] items-baseline gap-x-2.5 border-b border-rule py-1 ${marked ? 'bg-blue-wash' : ''}`}>
      <span className="self-center" title={STANDING_WORD[standing]}>
        <StandingShape standing={standing} />
        <span className="sr-only">
          {condition}/{item.number} {STANDING_WORD[standing]}:
        </span>
      </span>
      <span className={ink}>{item.name}</span>
      <span className={`truncate font-mono text-xs ${ink}`} title={item.extent}>
        {item.extent}
      </span>
      <span className="text-sm">
        {shownBy.length > 0 && <ShownBy refs={shownBy} />}
        {standing === 'suspect' && <span className="text-brick" title="What it hangs on has changed in meaning since"> · suspect</span>}
        {standing === 'waiting' && <span className="text-plum">{shownBy.length > 0 && ' · '}waiting for an answer</span>}
        {standing === 'gap' && <span className="text-brick">no row shows it</span>}
        {standing === 'linked' && <span className="text-ochre-ink">linked; no row shows it</span>}
        {leftOut !== null && (
          <span className="text-ink2">
            left out: {leftOut.reason} <span className="whitespace-nowrap">({leftOut.by}, {leftOut.at.slice(0, 10)})</span>
            {onTakeBack !== undefined && (
              <>
                {' '}
                · <TextButton onClick={() => onTakeBack(item.key)}>take back</TextButton>
              </>
            )}
          </span>
        )}
        {open && onAdd !== undefined && (
          <>
            {' '}
            · <TextButton onClick={() => onAdd(item.key)}>add to a case</TextButton>
          </>
        )}
        {(open || standing === 'waiting') && onLeaveOut !== undefined && !leaving && (
          <>
            {' '}
            · <TextButton onClick={() => setLeaving(true)}>leave out, with a reason</TextButton>
          </>
        )}
        {open && onAsk !== undefined && !leaving && (
          <>
            {' '}
            · <TextButton onClick={() => onAsk(item.key)}>ask</TextButton>
          </>
        )}
        {leaving && onLeaveOut !== undefined && <ReasonForm label={`Reason for leaving out ${item.name}`} placeholder="Why it need not be shown" action="leave out" onCancel={() => setLeaving(false)} onGive={(reason) => (onLeaveOut(item.key, reason), setLeaving(false))} />}
      </span>
    </li>
  );
}

const MOST_ROWS = 4;

function ShownBy({ refs }: { readonly refs: readonly InstanceRef[] }) {
  const { project } = useFrame();
  const cases = [...new Set(refs.map((r) => r.case))];
  return (
    <>
      {cases.slice(0, 3).map((id, i) => {
        const rows = refs.filter((r) => r.case === id && r.row !== null).map((r) => r.rowName || 'a row');
        return (
          <span key={id}>
            {i > 0 && ' · '}
            <Link to={address.cases(project, id)} className="font-mono text-xs hover:underline">
              {id}
            </Link>{' '}
            {rows.slice(0, MOST_ROWS).join(', ')}
            {rows.length > MOST_ROWS && ` and ${rows.length - MOST_ROWS} more`}
          </span>
        );
      })}
      {cases.length > 3 && ` · ${cases.length - 3} more cases`}
    </>
  );
}
