import type { ArtefactKind } from '@caderno/core/artefacts';
import { readOwn, type OwnField, type OwnFieldType } from '@caderno/core/fields';
import { queryFieldsOf, queryNameOf, queryValuesFor, type QueryField, type QueryPart } from '@caderno/core/find';
import { useMemo } from 'react';
import { useAllListed, useOwnFields, type ListedHead } from '../api/index.ts';

/** What can be written at a place of a query, and what it means. */
export interface Offer {
  readonly text: string;
  readonly meaning: string;
}

const MOST_OFFERED = 30;

const FIELD_MEANING: Record<QueryField, string> = {
  state: 'draft, in review, agreed, withdrawn, any', module: 'part of a module’s name', tag: 'one of its tags', priority: 'one of the project’s priorities', risk: 'high, medium or low', owner: 'part of a name', author: 'who saved it last', kind: 'procedure or charter', execution: 'by hand or automated',
  technique: 'what its model is', polarity: 'what it asks for', type: 'what kind of requirement', status: 'open or answered', standing: 'it has such an item', depth: 'a depth of testing', has: 'something it has', is: 'something it is', covers: 'a condition, as K-3',
  requirement: 'a requirement, as R-3', id: 'one artefact', minutes: 'once; or minutes>10', steps: 'so many; or steps>5', rows: 'so many; or rows>1', scenarios: 'so many; or scenarios>5', problems: 'lines that are not good Gherkin; problems>0', version: 'or version>1', coverage: 'shown items; coverage<50%', updated: 'saved; updated<7d, updated>2026-11-02',
};

const HAS_MEANING: Readonly<Record<string, string>> = {
  rows: 'rows of data', steps: 'steps', expected: 'an expected result', covers: 'a condition it covers', tags: 'a tag', estimate: 'minutes', owner: 'an owner', module: 'a module', requirement: 'a requirement', dataSet: 'rows of a data set', problems: 'lines that are not good Gherkin',
  mine: 'I am its owner', broken: 'it cannot be read', showing: 'it shows items', agreed: 'a version that was agreed', newer: 'newer than what was agreed',
};

const OWN_MEANING: Record<OwnFieldType, string> = { text: 'part of the text', longText: 'part of the text', number: 'or compared, as >3', choice: 'one of its choices', choices: 'one of its choices', date: 'or compared, as <2026-11-02', person: 'part of a name', yesNo: 'yes or no', link: 'part of the address' };

/** What artefacts of the project have in fields of no closed set. */
const VALUES_OF: Readonly<Partial<Record<QueryField, (listed: ListedHead) => readonly (string | undefined)[]>>> = {
  module: (l) => l.modules, priority: (l) => [l.priority], owner: (l) => [l.owner], author: (l) => [l.author], tag: (l) => l.tags ?? [], depth: (l) => l.depths ?? [], covers: (l) => l.covers ?? [], requirement: (l) => l.requirements ?? l.about ?? [],
};

/** What is offered for the part of a query that is being written, that which begins with it first. */
export function useOffered(project: string, kind: ArtefactKind, part: QueryPart | null): readonly Offer[] {
  const field = part?.field ?? null;
  const all = useAllListed(project, kind, field !== null);
  const fields = useOwnFields(project);
  const possible = useMemo(() => (field === null ? queryFieldsOf(kind, fields).map(fieldOffer) : valuesOf(field, kind, all, fields)), [all, field, fields, kind]);
  if (part === null || (part.field === null && part.typed === '')) return [];
  const typed = part.typed.toLowerCase();
  const place = ({ text }: Offer): number => text.toLowerCase().indexOf(typed);
  const fitting = possible.filter((offer) => place(offer) >= 0 && offer.text.toLowerCase() !== typed);
  return fitting.sort((a, b) => Math.min(1, place(a)) - Math.min(1, place(b))).slice(0, MOST_OFFERED);
}

function fieldOffer(field: QueryField | OwnField): Offer {
  return typeof field === 'string' ? { text: field, meaning: FIELD_MEANING[field] } : { text: queryNameOf(field), meaning: field.help === '' ? OWN_MEANING[field.type] : field.help };
}

/** What a field can be, and with `has:` what of the project's own fields can be filled in. */
function valuesOf(field: QueryField | OwnField, kind: ArtefactKind, all: readonly ListedHead[], fields: readonly OwnField[]): Offer[] {
  if (typeof field !== 'string') return ownValuesOf(field, all);
  const own = field === 'has' ? queryFieldsOf(kind, fields).flatMap((f) => (typeof f === 'string' ? [] : [{ text: queryNameOf(f), meaning: 'it is filled in' }])) : [];
  const closed = queryValuesFor(field, kind);
  if (closed.length > 0) return [...closed.map((text) => ({ text, meaning: HAS_MEANING[text] ?? '' })), ...own];
  return counted(all.flatMap((listed) => VALUES_OF[field]?.(listed) ?? []));
}

function ownValuesOf(field: OwnField, all: readonly ListedHead[]): Offer[] {
  const used = counted(all.flatMap(({ own }) => (own[field.id] === undefined ? [] : readOwn(field, own[field.id] ?? []).shown)));
  switch (field.type) {
    case 'choice':
    case 'choices':
      return field.choices.map(({ name }) => used.find((offer) => offer.text === name) ?? { text: name, meaning: '0' });
    case 'yesNo':
      return ['yes', 'no'].map((text) => used.find((offer) => offer.text === text) ?? { text, meaning: '0' });
    case 'longText':
      return [];
    default:
      return used;
  }
}

/** Each once, those that are there most first. */
function counted(values: readonly (string | undefined)[]): Offer[] {
  const counts = new Map<string, number>();
  for (const value of values) if (value !== undefined && value !== '') counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a).map(([text, count]) => ({ text, meaning: String(count) }));
}
