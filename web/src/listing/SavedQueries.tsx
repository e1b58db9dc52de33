import type { ArtefactKind } from '@caderno/core/artefacts';
import type { SavedQuery } from '@caderno/contract';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ChevronDown, X } from 'lucide-react';
import { useState } from 'react';
import { useMatchCount } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { locale, MenuLine } from '../look/index.ts';
import { KeepQuery } from './KeepQuery.tsx';
import { useSavedQueries } from './useSavedQueries.ts';

interface Props {
  readonly kind: ArtefactKind;
  readonly query: string;
  readonly onQuery: (query: string) => void;
}

/** The queries that are kept, each with how many match it now; the one that is written can be kept too. */
export function SavedQueries({ kind, query, onQuery }: Props) {
  const { project, canEdit } = useFrame();
  const { saved = [], save, remove } = useSavedQueries(project, kind);
  const [naming, setNaming] = useState(false);
  const isSaved = saved.some((s) => s.query === query.trim());
  return (
    <>
      <Menu>
        <MenuButton className="chip-button">
          Queries
          {saved.length > 0 && <span className="font-normal text-ink2">{saved.length}</span>}
          <ChevronDown size={12} aria-hidden="true" />
        </MenuButton>
        <MenuItems anchor={{ to: 'bottom start', gap: 4 }} className="z-50 max-h-96 w-80 overflow-y-auto rounded-panel border border-rule2 bg-page py-1 text-sm focus:outline-none">
          {saved.map((one) => (
            <Saved key={one.id} project={project} saved={one} canRemove={!one.everybody || canEdit} onChoose={() => onQuery(one.query)} onRemove={() => void remove(one.id)} />
          ))}
          {saved.length === 0 && <p className="px-3 py-1.5 text-ink2">No query is saved yet.</p>}
          <div className="mt-1 border-t border-rule pt-1">
            <MenuLine disabled={query.trim() === '' || isSaved} onPick={() => setNaming(true)}>
              {isSaved ? 'This query is saved' : query.trim() === '' ? 'Write a query to save it' : 'Save this query'}
            </MenuLine>
          </div>
        </MenuItems>
      </Menu>
      {naming && (
        <KeepQuery title="Save this query" canShare={canEdit} onSave={(name, everybody) => save({ kind, name, query: query.trim(), everybody, counts: null })} onClose={() => setNaming(false)}>
          <p className="rounded-field bg-page2 px-3 py-2 font-mono text-xs">{query}</p>
        </KeepQuery>
      )}
    </>
  );
}

interface SavedProps {
  readonly project: string;
  readonly saved: SavedQuery;
  readonly canRemove: boolean;
  readonly onChoose: () => void;
  readonly onRemove: () => void;
}

function Saved({ project, saved: { kind, name, query, everybody }, canRemove, onChoose, onRemove }: SavedProps) {
  const count = useMatchCount(project, kind, query);
  return (
    <div className="flex items-stretch">
      <MenuItem>
        <button type="button" className="flex min-w-0 flex-1 items-baseline gap-2 px-3 py-1.5 text-left data-focus:bg-blue-wash" onClick={onChoose}>
          <span className="min-w-0 flex-1">
            <span className="block truncate">{name}</span>
            <span className="block truncate font-mono text-xs text-ink2">
              {query}
              {everybody && <span className="font-sans"> · the project’s</span>}
            </span>
          </span>
          {count !== null && <span className="text-xs tabular-nums text-ink2">{count.toLocaleString(locale())}</span>}
        </button>
      </MenuItem>
      {canRemove && (
        <MenuItem>
          <button type="button" className="grid w-9 place-items-center text-ink2 data-focus:bg-blue-wash" aria-label={`Remove the query ${name}`} title="Remove this query" onClick={onRemove}>
            <X size={13} aria-hidden="true" />
          </button>
        </MenuItem>
      )}
    </div>
  );
}
