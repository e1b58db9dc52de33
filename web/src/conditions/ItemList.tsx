import type { ConditionId } from '@caderno/core/artefacts';
import type { ItemKey } from '@caderno/core/conditions';
import { shownBy, type ConditionCoverage, type InstanceRef, type ItemCoverage, type Standing } from '@caderno/core/coverage';
import { pathOfItem } from '@caderno/core/remarks';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Choose, ReasonForm, STANDING_WORD, StandingShape, TextButton, countOf, locale } from '../look/index.ts';

interface Props {
  readonly condition: ConditionId;
  readonly coverage: ConditionCoverage;
  readonly onWhy: (item: ItemCoverage) => void;
  /** What can be done with an item nothing shows; absent for readers. */
  readonly onAdd?: (item: ItemKey) => void;
  readonly onLeaveOut?: (item: ItemKey, reason: string) => void;
  readonly onTakeBack?: (item: ItemKey) => void;
  readonly onAsk?: (item: ItemKey) => void;
  /** Absent: nothing is said here. */
  readonly onRemark?: (item: ItemKey) => void;
}

/** How many items are drawn at once, and how many instances are named for each. */
const MOST_DRAWN = 120;
const MOST_NAMED = 24;

const FILTERS = ['all', 'missing', 'shown', 'leftOut', 'waiting', 'suspect'] as const;
type Filter = (typeof FILTERS)[number];
const FILTER_WORD: Record<Filter, string> = { all: 'all items', missing: 'what is missing', shown: 'shown', leftOut: 'left out', waiting: 'waiting', suspect: 'suspect' };

function passes(filter: Filter, standing: Standing): boolean {
  return filter === 'all' || filter === standing || (filter === 'missing' && (standing === 'gap' || standing === 'linked'));
}

/** What has to be shown, with the standing of each item and what shows it. */
export function ItemList({ condition, coverage, ...actions }: Props) {
  const { hash } = useLocation();
  const { items } = coverage;
  const [filter, setFilter] = useState<Filter>('all');
  const [drawn, setDrawn] = useState(MOST_DRAWN);
  const named = useMemo(() => shownBy(coverage, MOST_NAMED), [coverage]);
  const chosen = items.map((item, place) => ({ item, place })).filter(({ item }) => passes(filter, item.standing));
  const marked = chosen.findIndex(({ item }) => hash === `#item-${item.item.number}`);
  const until = Math.max(drawn, marked + 1);
  useEffect(() => {
    if (hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'center' });
  }, [hash, items.length]);
  const offered = FILTERS.filter((f) => items.some((i) => passes(f, i.standing)));
  return (
    <>
      {items.length > 12 && offered.length > 2 && (
        <div className="mt-1.5">
          <Choose label="Show" value={filter} options={offered.map((f) => ({ value: f, name: FILTER_WORD[f] }))} onChange={setFilter} />
        </div>
      )}
      <ol aria-label="Coverage items">
        {chosen.slice(0, until).map(({ item, place }, i) => (
          <Item key={item.item.key} condition={condition} coverage={item} refs={named[place] ?? []} marked={i === marked} {...actions} />
        ))}
      </ol>
      {chosen.length > until && (
        <TextButton className="mt-2 text-sm" onClick={() => setDrawn(until + MOST_DRAWN)}>
          show {countOf(Math.min(MOST_DRAWN, chosen.length - until), 'more item')} of {(chosen.length - until).toLocaleString(locale())}
        </TextButton>
      )}
    </>
  );
}

interface ItemProps extends Omit<Props, 'coverage'> {
  readonly coverage: ItemCoverage;
  readonly refs: readonly InstanceRef[];
  readonly marked: boolean;
}

function Item({ condition, coverage, refs, marked, onWhy, onAdd, onLeaveOut, onTakeBack, onAsk, onRemark }: ItemProps) {
  const [leaving, setLeaving] = useState(false);
  const { item, standing, instances, leftOut } = coverage;
  const open = standing === 'gap' || standing === 'linked';
  const ink = standing === 'gap' ? 'text-brick' : '';
  return (
    <li id={`item-${item.number}`} data-place={pathOfItem(item.key)} className={`group grid min-h-[30px] grid-cols-[16px_minmax(120px,1fr)_minmax(90px,0.9fr)_minmax(180px,2fr)] items-baseline gap-x-2.5 border-b border-rule py-1 ${marked ? 'bg-blue-wash' : ''}`}>
      <span className="self-center" title={STANDING_WORD[standing]}>
        <StandingShape standing={standing} />
        <span className="sr-only">
          {condition}/{item.number} {STANDING_WORD[standing]}:
        </span>
      </span>
      <span className={ink}>{item.name}</span>
      <span className={`truncate font-mono text-xs print:whitespace-normal ${ink}`} title={item.extent}>
        {item.extent}
      </span>
      <span className="text-sm">
        {refs.length > 0 && <ShownBy refs={refs} all={instances} />}
        {standing === 'suspect' && <span className="text-brick" title="What it hangs on has changed in meaning since"> · suspect</span>}
        {standing === 'waiting' && <span className="text-plum">{refs.length > 0 && ' · '}waiting for an answer</span>}
        {standing === 'gap' && <span className="text-brick">nothing shows it</span>}
        {standing === 'linked' && <span className="text-ochre-ink">linked, not shown</span>}
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
            · <TextButton onClick={() => onAdd(item.key)}>write a case</TextButton>
          </>
        )}
        {' '}
        · <TextButton className="text-ink2" aria-label={`Why ${item.name} is ${STANDING_WORD[standing]}`} onClick={() => onWhy(coverage)}>why</TextButton>
        {(open || standing === 'waiting') && onLeaveOut !== undefined && !leaving && (
          <>
            {' '}
            · <TextButton onClick={() => setLeaving(true)}>leave out</TextButton>
          </>
        )}
        {open && onAsk !== undefined && !leaving && (
          <>
            {' '}
            · <TextButton onClick={() => onAsk(item.key)}>ask</TextButton>
          </>
        )}
        {onRemark !== undefined && !leaving && (
          <span className="opacity-0 focus-within:opacity-100 group-hover:opacity-100 print:hidden">
            {' '}
            · <TextButton aria-label={`Remark on ${item.name}`} onClick={() => onRemark(item.key)}>remark</TextButton>
          </span>
        )}
        {leaving && onLeaveOut !== undefined && <ReasonForm label={`Reason for leaving out ${item.name}`} placeholder="Why it need not be shown" action="leave out" onCancel={() => setLeaving(false)} onGive={(reason) => (onLeaveOut(item.key, reason), setLeaving(false))} />}
      </span>
    </li>
  );
}

const MOST_ROWS = 4;

function ShownBy({ refs, all }: { readonly refs: readonly InstanceRef[]; readonly all: number }) {
  const { project } = useFrame();
  const cases = [...new Set(refs.map((r) => r.case))];
  return (
    <>
      {cases.slice(0, 3).map((id, i) => {
        const rows = refs.filter((r) => r.case === id && r.row !== null).map((r) => r.rowName || 'a row');
        return (
          <span key={id}>
            {i > 0 && ' · '}
            <Link to={address.covering(project, id)} className="font-mono text-xs hover:underline">
              {id}
            </Link>{' '}
            {rows.slice(0, MOST_ROWS).join(', ')}
            {rows.length > MOST_ROWS && ` and ${rows.length - MOST_ROWS} more`}
          </span>
        );
      })}
      {cases.length > 3 && ` · ${cases.length - 3} more cases`}
      {all > refs.length && ` · ${(all - refs.length).toLocaleString(locale())} more instances`}
    </>
  );
}
