import { ARTEFACT_KINDS, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { TEXT_PARTS, finderOf, type Search, type TextPart } from '@caderno/core/replacing';
import type { Chosen } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useMemo, useState } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { useHeads } from '../api/index.ts';
import { Loading, useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, KIND_NAME, countOf, locale } from '../look/index.ts';
import { PlaceLines } from './PlaceLines.tsx';
import { SearchForm } from './SearchForm.tsx';
import { useFoundPlaces, type Found } from './useFoundPlaces.ts';
import { useTicks } from './useTicks.ts';

const NOTHING: Search = { text: '', replacement: '', isPattern: false, matchCase: false, wholeWords: false, inNames: false };

/** Finds words in the texts of many artefacts, shows each place with its change, and replaces those that are ticked: one entry of the journal. */
export function ReplacePage() {
  const { project, canEdit } = useFrame();
  const client = useQueryClient();
  const { scope, setScope, scopes, of } = useScope();
  const [search, setSearch] = useState(NOTHING);
  const [parts, setParts] = useState<readonly TextPart[]>(TEXT_PARTS);
  const [busy, setBusy] = useState(false);
  const changeMany = useChangeMany(project);
  const settled = useDeferredValue(search);
  const isUnreadable = settled.text !== '' && finderOf(settled) === null;
  const { found, error, isFetching, more } = useFoundPlaces(project, of, isUnreadable ? NOTHING : settled, parts);
  const ticks = useTicks(JSON.stringify([of, { ...settled, replacement: '' }, parts]));
  const titleOf = useTitleOf(project);
  const replace = async (at: Found): Promise<void> => {
    setBusy(true);
    const words = `“${search.text}” replaced with “${search.replacement}”`;
    const done = await changeMany({ of, done: { kind: 'replace', search, parts: [...parts], without: ticks.untickedPaths(), asOf: at.revision }, detail: words.slice(0, 300) });
    setBusy(false);
    if (done === null) return;
    toast.success(`Replaced in ${countOf(done.changed, 'artefact')}. The journal can undo it.`);
    await client.invalidateQueries({ queryKey: [project, 'places'] });
  };
  return (
    <div className="flex h-full max-tablet:block max-tablet:overflow-y-auto print:block">
      <aside className="w-[300px] shrink-0 overflow-y-auto border-r border-rule px-6 py-6 max-tablet:w-full max-tablet:border-r-0 print:hidden">
        <h1 className="mb-3 font-serif text-2xl font-semibold">Search and replace</h1>
        <SearchForm search={search} onSearch={setSearch} parts={parts} onParts={setParts} scope={scope} scopes={scopes} onScope={setScope} />
        {canEdit && found !== undefined && found.total > 0 && (
          <div className="mt-4">
            <Button look="accent" disabled={busy || isFetching || search !== settled || found.total === ticks.without} onClick={() => void replace(found)}>
              {busy ? 'Replacing …' : `${search.replacement === '' ? 'Remove from' : 'Replace in'} ${countOf(found.total - ticks.without, 'place')}`}
            </Button>
            <p className="mt-1.5 text-xs text-ink2">One entry of the journal; Undo takes it back whole.</p>
          </div>
        )}
      </aside>
      <div className="flex min-w-0 flex-1 flex-col">
        <p role="status" className="px-5 py-3 text-sm text-ink2">
          {isUnreadable ? `“${settled.text}” is no pattern yet.` : foundWords(settled, parts, found, isFetching)}
        </p>
        {error !== null && <Loading error={error} />}
        {found !== undefined && settled.text !== '' && !isUnreadable && <PlaceLines places={found.places} titleOf={titleOf} ticks={ticks} isReplaced={search.replacement !== ''} more={more} />}
      </div>
    </div>
  );
}

function foundWords({ text }: Search, parts: readonly TextPart[], found: Found | undefined, isFetching: boolean): string {
  if (text === '') return 'Write what is to be found. Every place is shown with its change, and can be left out, before anything is changed.';
  if (parts.length === 0) return 'Nothing is chosen to be looked through.';
  if (found === undefined) return isFetching ? 'Looking …' : '';
  if (found.total === 0) return 'Nothing has it.';
  return `${countOf(found.matches, 'match', 'matches')} in ${countOf(found.total, 'place')} of ${countOf(found.artefacts, 'artefact')}`;
}

const NONE: readonly ArtefactId[] = [];
type Scope = 'selected' | 'query' | 'everything' | ArtefactKind;

/** What is looked through: those that were selected when one came here, what a query finds, all of a kind, or everything. */
function useScope() {
  const state = useLocation().state as { readonly selected?: readonly ArtefactId[] } | null;
  const [params] = useSearchParams();
  const query = params.get('query') ?? '';
  const kind = ARTEFACT_KINDS.find((k) => k === params.get('kind'));
  const selected = state?.selected ?? NONE;
  const [scope, setScope] = useState<Scope>(selected.length > 0 ? 'selected' : kind !== undefined && query !== '' ? 'query' : (kind ?? 'everything'));
  const of = useMemo<Chosen>(() => {
    if (scope === 'selected') return { ids: [...selected] };
    if (scope === 'query') return { kind: kind ?? 'case', query };
    return scope === 'everything' ? { everything: true } : { kind: scope, query: '' };
  }, [kind, query, scope, selected]);
  const scopes: { value: Scope; name: string }[] = [
    ...(selected.length > 0 ? [{ value: 'selected' as const, name: `the ${selected.length.toLocaleString(locale())} selected` }] : []),
    ...(kind !== undefined && query !== '' ? [{ value: 'query' as const, name: `${KIND_NAME[kind][1]}: ${query}` }] : []),
    { value: 'everything', name: 'everything' },
    ...ARTEFACT_KINDS.map((k) => ({ value: k, name: `all ${KIND_NAME[k][1]}` })),
  ];
  return { scope, setScope, scopes, of };
}

function useTitleOf(project: string): (id: ArtefactId) => string {
  const heads = useHeads(project);
  const titles = useMemo(() => new Map(heads?.map((head) => [head.id as ArtefactId, head.title])), [heads]);
  return (id) => titles.get(id) ?? '';
}
