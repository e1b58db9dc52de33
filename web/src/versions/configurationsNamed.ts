import type { Configuration } from '@caderno/core/shared';
import { isElementList, isRecord, type Json } from '@caderno/core/versions';

/** A content as it is compared: configurations in which a suite, its parts and members run, by their names. */
export function configurationsNamed(content: Json, configurations: readonly Configuration[]): Json {
  if (!isRecord(content) || !Array.isArray(content.configurations) || !isElementList(content.entries)) return content;
  const nameOf = (id: Json): Json => configurations.find((c) => c.id === id)?.name ?? id;
  const named = (ids: readonly Json[]): string => (ids.length === 0 ? 'none' : ids.map(nameOf).join(', '));
  // What says nothing of itself is not told.
  const ownNamed = (ids: Json | undefined): string => (Array.isArray(ids) ? named(ids) : '');
  return { ...content, configurations: named(content.configurations), entries: content.entries.map((entry) => ({ ...entry, runsIn: ownNamed(entry.runsIn) })) };
}
