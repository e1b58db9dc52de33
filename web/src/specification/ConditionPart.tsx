import { countItems, coverageItems } from '@caderno/core/conditions';
import type { Specified } from '@caderno/core/specification';
import { useCoverageRows } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { MODEL_WORD, POLARITY_WORD, RISK_WORD, STANDING_WORD, StandingShape, countOf, locale } from '../look/index.ts';
import type { StandingItem, StateDrawing } from '../models/index.ts';
import { ModelDrawn } from './ModelDrawn.tsx';
import { PartHead } from './PartHead.tsx';

interface Props {
  readonly condition: Specified<'condition'>;
  readonly drawing: StateDrawing | undefined;
}

/** Items that are listed; more say nothing to whoever reads. */
const MOST_ITEMS = 150;

/** A condition: its model, drawn, and what has to be shown with how it stands. */
export function ConditionPart({ condition, drawing }: Props) {
  const { content, id } = condition;
  const rows = useCoverageRows(useFrame().project);
  const count = countItems(content.model);
  // Items of a model that makes too many are counted, not made.
  const standings = rows?.standings(id) ?? [];
  const items: StandingItem[] = count > BigInt(MOST_MADE) ? [] : coverageItems(content).flatMap((item, i) => [{ item, standing: standings[i] ?? 'gap' }]);
  const facts = [MODEL_WORD[content.model.kind], POLARITY_WORD[content.polarity], content.risk === null ? '' : RISK_WORD[content.risk], ...content.depths];
  return (
    <section className="mt-4 border-l-2 border-rule2 pl-4">
      <PartHead of={condition} facts={facts} />
      <ModelDrawn model={content.model} name={content.title} items={items} drawing={drawing} />
      <Items items={items} isKnown={rows !== null} count={count} />
      {content.leftOut.length > 0 && (
        <ul className="mt-1 text-xs text-ink2">
          {content.leftOut.map((left) => (
            <li key={left.id}>
              Left out: {items.find((i) => i.item.key === left.id)?.item.name ?? left.id}, because {left.reason}
            </li>
          ))}
        </ul>
      )}
      {content.attachments.length > 0 && <p className="mt-1 text-xs text-ink2">Files: {content.attachments.map((a) => a.name).join(', ')}</p>}
    </section>
  );
}

/** Beyond so many, items are not even made. */
const MOST_MADE = 5_000;

function Items({ items, isKnown, count }: { readonly items: readonly StandingItem[]; readonly isKnown: boolean; readonly count: bigint }) {
  if (items.length === 0) return count === 0n ? null : <p className="mt-2 text-sm">{count.toLocaleString(locale())} coverage items, which are too many to be listed.</p>;
  return (
    <>
      <h5 className="spec-keep mt-2 text-xs text-ink2">{countOf(items.length, 'coverage item')}</h5>
      <ul className="columns-2 gap-6 text-xs">
        {items.slice(0, MOST_ITEMS).map(({ item, standing }) => (
          <li key={item.key} className="spec-whole flex items-baseline gap-1.5 py-0.5">
            {isKnown && <StandingShape standing={standing} />}
            <span className="font-mono text-ink2">{item.number}</span>
            <span className="min-w-0">
              {item.name} <span className="font-mono text-ink2">{item.extent}</span>
              {isKnown && <span className="sr-only"> {STANDING_WORD[standing]}</span>}
            </span>
          </li>
        ))}
      </ul>
      {items.length > MOST_ITEMS && <p className="text-xs text-ink2">and {(items.length - MOST_ITEMS).toLocaleString(locale())} more</p>}
    </>
  );
}
