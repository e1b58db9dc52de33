import type { RequirementId } from '@caderno/core/artefacts';
import type { Technique } from '@caderno/core/conditions';
import { itemsToShow, unanalysedRows, type CoverageReport, type ListedItem, type RequirementCoverage, type Standing } from '@caderno/core/coverage';
import { Link } from 'react-router';
import { useCoverage, useItems } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Chip, RISK_WORD, STANDING_WORD, Section, StandingShape, TECHNIQUE_WORD, countOf, locale } from '../look/index.ts';

/** What a number that was clicked counts. */
export type Behind =
  | { readonly kind: 'unanalysed' }
  | {
      readonly kind: 'items';
      readonly standings: readonly Standing[];
      readonly technique: Technique | null;
      readonly module: string | null;
      readonly requirement: RequirementId | null;
    };

const MOST_GAPS = 6;
const MOST_LISTED = 500;
const WEIGHT_WORD: Readonly<Record<number, string>> = { 9: 'High', 3: 'Medium', 1: 'Low' };

/** What is not shown yet: first the requirements of high risk that nobody analysed, then items, those of the highest risk first. */
export function WorstGaps({ report }: { readonly report: CoverageReport }) {
  const { project } = useFrame();
  const { counts } = report;
  const total = counts.gap + counts.linked + counts.suspect;
  const items = useItems(project, { standing: 'gap,linked,suspect', limit: MOST_GAPS }).data?.items;
  const risky = unanalysedRows(report).filter((r) => r.risk === 'high');
  const all = total > 0 && (
    <Link className="underline decoration-rule2 underline-offset-2" to="?standing=gap,linked,suspect">
      All {countOf(total, 'item')}
    </Link>
  );
  return (
    <Section title="Not yet shown" aside="the worst first, weighed by risk" actions={all}>
      {items?.length === 0 && risky.length === 0 && <p className="mt-3 text-ink2">{nothingWords(report)}</p>}
      <ul>
        {risky.slice(0, MOST_GAPS).map((requirement) => (
          <UnanalysedLine key={requirement.id} requirement={requirement} />
        ))}
        {risky.length > MOST_GAPS && (
          <li className="border-b border-rule py-2 text-sm">
            <Link className="underline decoration-rule2 underline-offset-2" to="?list=unanalysed">
              and {countOf(risky.length - MOST_GAPS, 'more requirement')} of high risk
            </Link>
          </li>
        )}
        {items?.map((item) => (
          <GapLine key={`${item.condition} ${item.item.key}`} item={item} />
        ))}
      </ul>
    </Section>
  );
}

/** What can be said when no item is missing: only with everything analysed is nothing missing. */
function nothingWords({ requirements, unanalysed, counts }: CoverageReport): string {
  if (requirements.length === 0) return 'There are no requirements yet, so nothing can be measured.';
  if (itemsToShow(counts) === 0) return 'There are no conditions yet, so nothing can be measured.';
  if (unanalysed.length > 0) return `Every item there is is shown or waits, and ${unanalysed.length === 1 ? '1 requirement is' : `${unanalysed.length.toLocaleString(locale())} requirements are`} not analysed yet.`;
  return counts.waiting > 0 ? 'Every item is shown or waits for an answer.' : 'Every item is shown.';
}

function UnanalysedLine({ requirement: { id, title } }: { readonly requirement: RequirementCoverage }) {
  const { project, canEdit } = useFrame();
  return (
    <li className="flex items-start gap-3 border-b border-rule py-2">
      <span className="w-[13px] shrink-0 pt-px text-center font-mono text-sm font-semibold text-brick" aria-hidden="true">
        ?
      </span>
      <span className="min-w-0 flex-1">
        <Link to={address.conditions(project, id)} className="block font-semibold leading-[1.35] hover:underline">
          {title}
        </Link>
        <span className="text-xs text-ink2">
          <span className="font-mono">{id}</span> not analysed yet
        </span>
      </span>
      <span className="flex flex-col items-end gap-0.5">
        <Chip>High</Chip>
        {canEdit && (
          <Link className="text-sm text-blue underline underline-offset-2" to={address.conditions(project, id)}>
            Add conditions
          </Link>
        )}
      </span>
    </li>
  );
}

function GapLine({ item }: { readonly item: ListedItem }) {
  const { project } = useFrame();
  return (
    <li className="flex items-start gap-3 border-b border-rule py-2">
      <span className="pt-1" title={STANDING_WORD[item.standing]}>
        <StandingShape standing={item.standing} />
      </span>
      <span className="min-w-0 flex-1">
        <Link to={itemAddress(project, item)} className="block font-semibold leading-[1.35] hover:underline">
          {itemTitle(item)}
        </Link>
        <span className="text-xs text-ink2">
          <span className="font-mono">
            {item.condition}/{item.item.number}
          </span>{' '}
          {STANDING_WORD[item.standing]} · {item.cases.length === 0 ? 'no case' : countOf(item.cases.length, 'case')}
        </span>
      </span>
      <span className="flex flex-col items-end gap-0.5">
        <Chip>{WEIGHT_WORD[item.weight] ?? item.weight}</Chip>
        <Remedy item={item} />
      </span>
    </li>
  );
}

function Remedy({ item }: { readonly item: ListedItem }) {
  const { project, canEdit } = useFrame();
  const [first] = item.cases;
  if (!canEdit) return null;
  const look = 'text-sm text-blue underline underline-offset-2';
  if (first === undefined || item.standing === 'suspect') {
    return (
      <Link className={look} to={itemAddress(project, item)}>
        {item.standing === 'suspect' ? 'Look at it' : 'Write a case'}
      </Link>
    );
  }
  return (
    <Link className={look} to={address.covering(project, first)}>
      Add to {first}
    </Link>
  );
}

/** The list behind a number. */
export function ItemsBehind({ behind }: { readonly behind: Behind }) {
  return (
    <div className="px-6 pb-12 pt-4">
      <Link to="?" className="text-sm underline decoration-rule2 underline-offset-2">
        Back to the overview
      </Link>
      {behind.kind === 'unanalysed' ? <Unanalysed /> : <Items behind={behind} />}
    </div>
  );
}

function Unanalysed() {
  const { project } = useFrame();
  const report = useCoverage(project).data;
  const rows = report === undefined ? [] : unanalysedRows(report);
  return (
    <Section title="Not analysed yet" aside={`${countOf(rows.length, 'requirement')} without a condition, the highest risk first`}>
      <ul>
        {rows.map((r) => (
          <li key={r.id} className="border-b border-rule">
            <Link to={address.conditions(project, r.id)} className="flex gap-3 py-2 hover:underline">
              <span className="w-10 font-mono text-xs leading-5 text-ink2">{r.id}</span>
              <span className="min-w-0 flex-1">{r.title}</span>
              <span className="text-xs leading-5 text-ink2">{RISK_WORD[r.risk]}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Items({ behind }: { readonly behind: Extract<Behind, { kind: 'items' }> }) {
  const { project } = useFrame();
  const { data, error } = useItems(project, {
    limit: MOST_LISTED,
    ...(behind.standings.length > 0 ? { standing: behind.standings.join(',') } : {}),
    ...(behind.technique === null ? {} : { technique: behind.technique }),
    ...(behind.module === null ? {} : { module: behind.module }),
    ...(behind.requirement === null ? {} : { requirement: behind.requirement }),
  });
  if (data === undefined) return <Loading error={error} />;
  return (
    <Section title={behindWords(behind)} aside={countOf(data.total, 'item')}>
      <ul aria-label="Items">
        {data.items.map((item) => (
          <li key={`${item.condition} ${item.item.key}`} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <span title={STANDING_WORD[item.standing]}>
              <StandingShape standing={item.standing} />
              <span className="sr-only">{STANDING_WORD[item.standing]}</span>
            </span>
            <Link to={itemAddress(project, item)} className="min-w-0 flex-1 hover:underline">
              <span className="font-mono text-xs text-ink2">
                {item.condition}/{item.item.number}
              </span>{' '}
              {itemTitle(item)} <span className="font-mono text-xs text-ink2">{item.item.extent}</span>
            </Link>
            <span className="shrink-0 text-xs text-ink2">{item.shownBy[0] === undefined ? STANDING_WORD[item.standing] : `${item.shownBy[0].case} ${item.shownBy[0].rowName}${item.instances > 1 ? ` +${item.instances - 1}` : ''}`}</span>
          </li>
        ))}
      </ul>
      {data.total > data.items.length && <p className="mt-3 text-sm text-ink2">The first {data.items.length.toLocaleString(locale())}, worst first.</p>}
    </Section>
  );
}

function behindWords({ standings, technique, module, requirement }: Extract<Behind, { kind: 'items' }>): string {
  const words = [standings.map((s) => STANDING_WORD[s]).join(', '), technique === null ? '' : TECHNIQUE_WORD[technique].toLowerCase(), module ?? '', requirement === null ? '' : `of ${requirement}`].filter(Boolean).join(' · ');
  return words === '' ? 'Items' : words.charAt(0).toUpperCase() + words.slice(1);
}

function itemTitle({ conditionTitle, item }: ListedItem): string {
  return item.kind === 'condition' ? conditionTitle : `${conditionTitle}: ${item.name}`;
}

function itemAddress(project: string, { condition, item }: ListedItem): string {
  return `${address.condition(project, condition)}#item-${item.number}`;
}
