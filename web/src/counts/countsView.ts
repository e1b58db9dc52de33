import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import type { OwnField } from '@caderno/core/fields';
import { groupsOf, measuresOf, type BuiltInColumn, type ListColumn } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import { withParameters, type ParameterChange } from '../frame/index.ts';

/** What is counted, how, and of which line and column one sees the list; all of it stands in the address. */
export interface CountsSeen {
  readonly kind: ArtefactKind;
  readonly query: string;
  readonly counts: CountsView;
  /** Undefined: all of it. A value of null: those who have nothing in the column. */
  readonly line: string | null | undefined;
  readonly column: string | null | undefined;
}

const FIRST: Readonly<Record<ArtefactKind, readonly [BuiltInColumn, BuiltInColumn]>> = {
  requirement: ['module', 'risk'], condition: ['technique', 'risk'], case: ['module', 'priority'], question: ['owner', 'status'],
  shared: ['module', 'state'], dataSet: ['module', 'state'], feature: ['folder', 'state'], suite: ['folder', 'state'],
};

/** How artefacts of a kind are counted by somebody who chose nothing yet. */
export function firstCounts(kind: ArtefactKind): CountsView {
  const [down, across] = FIRST[kind];
  return { down, across, measure: 'number', as: 'table' };
}

/** Null: the address names no kind, and the page begins with what is kept. What it says in words nobody knows is as at first. */
export function readCounts(search: URLSearchParams, fields: readonly OwnField[]): CountsSeen | null {
  const kind = ARTEFACT_KINDS.find((k) => k === search.get('kind'));
  if (kind === undefined) return null;
  const first = firstCounts(kind);
  const named = (name: string): ListColumn | undefined => groupsOf(kind, fields).find((column) => column === search.get(name));
  return {
    kind,
    query: search.get('query') ?? '',
    counts: {
      down: named('down') ?? first.down,
      across: search.get('across') === NOT_ACROSS ? null : (named('across') ?? first.across),
      measure: measuresOf(kind, fields).find((m) => m === search.get('of')) ?? first.measure,
      as: search.get('as') === 'bars' ? 'bars' : 'table',
    },
    line: readValue(search.get('line')),
    column: readValue(search.get('column')),
  };
}

const NOT_ACROSS = 'none';
const NOTHING = '-';

/** A value in the address: what is nothing is told apart from what is called so. */
function readValue(written: string | null): string | null | undefined {
  return written === NOTHING ? null : written?.startsWith('=') === true ? written.slice(1) : undefined;
}

function writtenValue(value: string | null | undefined): string | null {
  return value === undefined ? null : value === null ? NOTHING : `=${value}`;
}

/** What changes in the address with a part of what is seen; another way of counting shows all of it at first. */
export function countsChange({ line, column, ...part }: Partial<CountsView> & { readonly kind?: ArtefactKind; readonly query?: string; readonly line?: string | null | undefined; readonly column?: string | null | undefined }): ParameterChange {
  return {
    ...(part.kind === undefined ? {} : { kind: part.kind }),
    ...(part.query === undefined ? {} : { query: part.query }),
    ...(part.down === undefined ? {} : { down: part.down }),
    ...(part.across === undefined ? {} : { across: part.across ?? NOT_ACROSS }),
    ...(part.measure === undefined ? {} : { of: part.measure }),
    ...(part.as === undefined ? {} : { as: part.as }),
    line: writtenValue(line),
    column: writtenValue(column),
  };
}

/** The part of an address that shows counts. */
export function countsSearch(kind: ArtefactKind, query: string, counts: CountsView): string {
  return `?${withParameters(new URLSearchParams(), countsChange({ kind, query, ...counts })).toString()}`;
}

/** Whether a column is still one by which its kind can be counted: a field of the project's own may be gone. */
export function canBeCounted(kind: ArtefactKind, { down, across, measure }: CountsView, fields: readonly OwnField[]): boolean {
  const groups = groupsOf(kind, fields);
  return groups.includes(down) && (across === null || groups.includes(across)) && measuresOf(kind, fields).includes(measure);
}
