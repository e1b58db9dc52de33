import type { ConditionContent, CoverageItem } from '@caderno/core/conditions';
import { carriedFields, coverageItems } from '@caderno/core/conditions';
import type { GapFilling } from '@caderno/core/coverage';
import { countOf } from '../look/index.ts';

/** The rows that would be added, and what each would show, before anything is changed. */
export function GapPreview({ condition, filling }: { readonly condition: ConditionContent; readonly filling: GapFilling }) {
  const items = new Map<string, CoverageItem>(coverageItems(condition).map((i) => [i.key, i]));
  const fields = carriedFields(condition.model);
  return (
    <>
      {filling.rows.length === 0 ? (
        <p>No row can be made up for this.</p>
      ) : (
        <table className="w-full text-left text-sm" aria-label="Rows to be added">
          <thead className="border-b border-ink text-xs text-ink2">
            <tr>
              <th className="py-1 font-semibold">row</th>
              {fields.map((f) => (
                <th key={f.id} className="font-semibold">
                  {f.name}
                </th>
              ))}
              <th className="font-semibold">would show</th>
            </tr>
          </thead>
          <tbody className="divide-y divide-rule">
            {filling.rows.map((row, i) => (
              <tr key={i}>
                <td className="py-1.5 pr-3">{row.name}</td>
                {fields.map((f) => (
                  <td key={f.id} className="max-w-52 truncate pr-3 font-mono text-xs">
                    {row.values.find((v) => v.field === f.id)?.cell}
                  </td>
                ))}
                <td className="text-pine">{row.shows.map((key) => items.get(key)?.name).join(' · ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {filling.unreachable.length > 0 && (
        <p className="mt-3 text-sm text-brick">
          {countOf(filling.unreachable.length, 'item')} cannot be shown by a made-up row: {filling.unreachable.map((key) => items.get(key)?.name).join(', ')}.
        </p>
      )}
    </>
  );
}
