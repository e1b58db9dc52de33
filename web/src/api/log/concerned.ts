import { ARTEFACT_KINDS, kindOfId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import type { Artefact } from '@caderno/contract';
import type { Query, QueryKey } from '@tanstack/react-query';
import { idsConcerned, type Changes } from './projectLog.ts';
import type { Heads } from './headLists.ts';

/** What was read besides the store and what of a change it hangs on: by the part of the project its key names. `itself`: the artefact of its key alone; `ids`: whatever it names; `idsOr`: that, or anything of a kind. */
const ON: Readonly<Record<string, 'itself' | 'ids' | 'everyChange' | 'settings' | 'never' | readonly ArtefactKind[] | { readonly idsOr: ArtefactKind }>> = {
  artefact: 'itself',
  broken: 'itself',
  version: 'never',
  settings: 'settings',
  members: 'never',
  journal: 'everyChange',
  drawing: 'never',
  savedQueries: 'never',
  // Told by events of their own.
  remarks: 'never',
  reviews: 'never',
  inbox: 'never',
  // By who owns it and who wrote in it.
  following: 'never',
  // What is frozen never changes; against now it is asked anew by whoever looks at it.
  baselines: 'never',
  handOffs: 'never',
  handOff: 'everyChange',
  moments: 'never',
  specification: 'everyChange',
  readLinks: 'never',
  frozenChanges: 'everyChange',
  // Lists of the server, by what they are of.
  'list/words': ARTEFACT_KINDS,
  'list/texts': ['requirement'],
  'list/tracker': ['requirement'],
  'list/defects': 'never',
  'list/find': 'everyChange',
  'list/library': 'ids',
  'list/reuse': 'ids',
  'list/runs': ['case'],
  'list/alike': ['case'],
  'list/phrases': ['feature'],
  'list/twice': ['feature'],
  // Rules find by anything that heads and coverage say.
  'list/suite': 'everyChange',
  'list/suites': 'everyChange',
  'list/handOff': 'everyChange',
  // What rules find of a case hangs on that case; what it takes part in, on any suite.
  'list/suitesOf': { idsOr: 'suite' },
  'list/graph': ['case', 'shared', 'dataSet'],
  // Names and instances of items; what else makes it another list is told by the coverage rows.
  'coverage/items': 'ids',
  'coverage/conditions': 'ids',
  'coverage/design': 'ids',
  'coverage/suspect': 'everyChange',
  // A cell hangs on its case, its condition, what both use, and for suites on what rules find.
  'coverage/matrix': 'everyChange',
  // The past does not change; today does.
  'coverage/trend': 'everyChange',
  'coverage/bends': 'everyChange',
  'coverage/report': 'everyChange',
  'coverage/trendOf': 'never',
  'coverage/trendCount': 'never',
};

/** What is looked through for so long that nobody wants it anew with every save: it is read again when it is next opened. */
const UNHURRIED: ReadonlySet<string> = new Set(['list/runs', 'list/alike', 'coverage/trend', 'coverage/bends', 'coverage/report', 'specification']);

export function isUnhurried(query: Pick<Query, 'queryKey'>): boolean {
  return UNHURRIED.has(partOf(query.queryKey));
}

/** Whether what a query answered may be another after these changes. What nothing is known of may be. */
export function isConcerned(query: Pick<Query, 'queryKey' | 'state'>, changes: Changes, heads: Heads): boolean {
  const on = ON[partOf(query.queryKey)];
  if (on === undefined || on === 'everyChange' || changes.settings) return on !== 'never';
  if (on === 'never' || on === 'settings') return false;
  if (on === 'itself') return !isAsSaved(query, heads) && [...changes.touched.map((t) => t.id), ...changes.gone].some((id) => id === query.queryKey[2]);
  if (on !== 'ids' && !('idsOr' in on)) return changes.touched.some((t) => on.includes(kindOfId(t.id)));
  if (on !== 'ids' && changes.touched.some((t) => kindOfId(t.id) === on.idsOr)) return true;
  const ids: ReadonlySet<string> = idsConcerned(changes);
  return idsIn(query).some((id) => ids.has(id));
}

/** `list` and `coverage` have parts of their own. */
function partOf([, part, rest]: QueryKey): string {
  return part === 'list' || part === 'coverage' ? `${part}/${String(rest)}` : String(part);
}

/** An artefact that was answered to one's own save is what the change brought, or newer. */
export function isAsSaved({ queryKey, state }: Pick<Query, 'queryKey' | 'state'>, heads: Heads): boolean {
  const [, part, id, ...rest] = queryKey;
  if (part !== 'artefact' || rest.length > 0 || !hasSummary(state.data)) return false;
  const head = heads.byId.get(id as ArtefactId);
  return head !== undefined && (state.data.summary.version > head.version || JSON.stringify(state.data.summary) === JSON.stringify(head));
}

function hasSummary(data: unknown): data is Pick<Artefact, 'summary'> {
  return typeof data === 'object' && data !== null && 'summary' in data;
}

const known = new WeakMap<object, readonly string[]>();

/** Every id in the key and in what was answered, also within texts: reading once too often harms nobody. */
function idsIn({ queryKey, state }: Pick<Query, 'queryKey' | 'state'>): readonly string[] {
  return [...idsInText(JSON.stringify(queryKey)), ...(typeof state.data === 'object' && state.data !== null ? idsOfData(state.data) : [])];
}

function idsOfData(data: object): readonly string[] {
  const ids = known.get(data) ?? idsInText(JSON.stringify(data));
  known.set(data, ids);
  return ids;
}

function idsInText(text: string): string[] {
  return [...new Set(text.match(/\b[A-Z]-[1-9]\d{0,8}\b/g))];
}
