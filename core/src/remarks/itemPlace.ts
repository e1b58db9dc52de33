import { countItems, coverageItems, type ConditionContent, type CoverageItem, type ItemKey } from '../conditions/index.ts';

/** With more items than these nobody says something of one. */
const MOST_ITEMS = 2_000n;

/** The path at which something is said of a coverage item; a key may hold any characters. */
export function pathOfItem(key: ItemKey): string {
  return `items/${encodeURIComponent(key)}`;
}

/**
 * A condition with its coverage items among its parts, so that something can be said of one: it stays with the item as
 * long as its key does, and is on something that is gone once the model makes none of that key. `known`: its items, where
 * they have been worked out.
 */
export function withItems(content: ConditionContent, known?: readonly Pick<CoverageItem, 'key' | 'name'>[]): ConditionContent & { readonly items: readonly { readonly id: string; readonly name: string }[] } {
  const items = countItems(content.model) > MOST_ITEMS ? [] : (known ?? coverageItems(content));
  return { ...content, items: items.map(({ key, name }) => ({ id: encodeURIComponent(key), name })) };
}
