import type { ConditionId } from '@caderno/core/artefacts';
import { readCell } from '@caderno/core/data';
import type { Cover, ParameterId } from '@caderno/core/cases';
import { fieldValues } from '@caderno/core/conditions';
import type { DesignCondition } from '@caderno/core/coverage';
import { useMemo } from 'react';
import type { ColumnCheck } from './columnCheck.ts';

const MOST_OFFERED = 200;

/** What the conditions that columns carry fields of know of their values: a column may serve several. */
export function useColumnChecks(carried: readonly Pick<Cover, 'id' | 'fields'>[], conditions: ReadonlyMap<ConditionId, DesignCondition>): ReadonlyMap<ParameterId, ColumnCheck> {
  return useMemo(() => {
    const served = new Map<ParameterId, { readonly words: string; readonly values: readonly string[]; readonly knows: (text: string) => boolean }[]>();
    for (const { id, fields } of carried) {
      const content = conditions.get(id)?.content;
      for (const field of content === undefined ? [] : fields) {
        const known = content === undefined ? null : fieldValues(content, field.id);
        if (known === null) continue;
        served.set(field.parameter, [...(served.get(field.parameter) ?? []), { words: `${id} ${known.name}`, values: known.offered, knows: known.knows }]);
      }
    }
    return new Map([...served].map(([parameter, all]): [ParameterId, ColumnCheck] => [parameter, { serves: all.map((s) => s.words).join(', '), values: [...new Set(all.flatMap((s) => s.values))].slice(0, MOST_OFFERED), problem: (cell) => problemOf(cell, all) }]));
  }, [carried, conditions]);
}

function problemOf(cell: string, served: readonly { readonly words: string; readonly knows: (text: string) => boolean }[]): string | null {
  const value = readCell(cell);
  if (value.kind !== 'text') return null;
  const strange = served.filter((s) => !s.knows(value.text));
  return strange.length === 0 ? null : `“${value.text.slice(0, 60)}” is no value of ${strange.map((s) => s.words).join(', ')}: it shows nothing there`;
}
