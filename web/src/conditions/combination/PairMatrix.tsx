import type { CombinationModel } from '@caderno/core/conditions';
import type { ItemCoverage } from '@caderno/core/coverage';

interface Props {
  readonly model: CombinationModel;
  readonly items: readonly ItemCoverage[];
}

/** Wide enough for the names below, as far as there is room. */
const ROOM = 540;
const MOST_FACTORS = 14;

/** Each pair of factors: how many of its combinations are shown, the darker the more; nothing where none can occur. */
export function PairMatrix({ model, items }: Props) {
  const { factors } = model;
  if (model.strength !== 'pairs' || factors.length < 2 || factors.length > MOST_FACTORS) return null;
  const width = Math.max(46, Math.min(92, Math.floor(ROOM / (factors.length - 1))));
  const counts = new Map<string, { shown: number; of: number }>();
  for (const { item, standing } of items) {
    if (item.kind !== 'tuple' || standing === 'leftOut') continue;
    const count = counts.get(item.extent) ?? { shown: 0, of: 0 };
    counts.set(item.extent, { shown: count.shown + (standing === 'shown' ? 1 : 0), of: count.of + 1 });
  }
  return (
    <figure className="mt-4 overflow-x-auto" aria-label="Pairs of factors">
      <figcaption className="mb-1 text-xs text-ink2">How many combinations of each pair are shown, of those that can occur</figcaption>
      <table className="border-collapse text-xs">
        <tbody>
          {factors.slice(1).map((below, row) => (
            <tr key={below.id}>
              <th scope="row" className="max-w-36 truncate pr-2 text-right font-medium text-ink2">
                {below.name}
              </th>
              {factors.slice(0, row + 1).map((across) => (
                <PairCell key={across.id} words={`${across.name}, ${below.name}`} count={counts.get(`${across.name}, ${below.name}`)} width={width} />
              ))}
            </tr>
          ))}
          <tr>
            <td />
            {factors.slice(0, -1).map((f) => (
              <th key={f.id} scope="col" className="truncate px-0.5 pt-1 text-center font-medium text-ink2" title={f.name} style={{ width, maxWidth: width }}>
                {f.name}
              </th>
            ))}
          </tr>
        </tbody>
      </table>
    </figure>
  );
}

function PairCell({ words, count, width }: { readonly words: string; readonly width: number; readonly count: { readonly shown: number; readonly of: number } | undefined }) {
  const whole = count !== undefined && count.shown === count.of;
  const share = count === undefined ? 0 : count.shown / count.of;
  return (
    <td title={count === undefined ? `${words}: nothing can occur` : `${words}: ${count.shown} of ${count.of} shown`} className="border border-rule2 p-0 text-center" style={{ width, height: 26 }}>
      <span className="relative block h-chip">
        <span className={`absolute inset-x-0 bottom-0 ${whole ? 'bg-pine-wash' : 'bg-ochre-wash'}`} style={{ height: `${share * 100}%` }} />
        <span className={`relative font-mono leading-[26px] ${whole ? 'text-pine' : 'text-ink'}`}>{count === undefined ? '·' : `${count.shown}/${count.of}`}</span>
      </span>
    </td>
  );
}
