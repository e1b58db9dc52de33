import type { Configuration } from '../shared/index.ts';

/** Configurations that have a value of a factor in common. */
export interface AlikeConfigurations {
  readonly factor: string;
  readonly value: string;
  readonly ids: readonly Configuration['id'][];
}

/** The values that several configurations have, and not all, in the order in which they come up. */
export function alikeConfigurations(configurations: readonly Configuration[]): AlikeConfigurations[] {
  const found = new Map<string, { readonly factor: string; readonly value: string; readonly ids: string[] }>();
  for (const { id, factors } of configurations) {
    for (const { name, value } of factors) {
      const key = JSON.stringify([name, value]);
      const there = found.get(key) ?? { factor: name, value, ids: [] };
      if (!there.ids.includes(id)) there.ids.push(id);
      found.set(key, there);
    }
  }
  return [...found.values()].filter(({ ids }) => ids.length > 1 && ids.length < configurations.length);
}
