import { entryId, type EntryId } from '@caderno/core/suites';

/** The id of a line that is made here. */
export function newEntryId(): EntryId {
  return entryId(crypto.randomUUID().slice(0, 8));
}
