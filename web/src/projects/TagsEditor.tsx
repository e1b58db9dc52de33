import type { ArtefactId } from '@caderno/core/artefacts';
import type { Summary } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { useHeads } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import { NameLine, RenameName, usedIn, type NameInUse } from './NamesInUse.tsx';

/** The tags of the project, renamed, joined and taken away wherever they stand. */
export function TagsEditor({ canEdit }: { readonly canEdit: boolean }) {
  const heads = useHeads(useFrame().project);
  const [renaming, setRenaming] = useState<NameInUse | null>(null);
  const tags = useMemo(() => tagsOf(heads ?? []), [heads]);
  return (
    <div className="mt-2 text-sm">
      {tags.length === 0 && <p className="text-ink2">None yet. Tags are written on cases, shared steps and data sets.</p>}
      <ul aria-label="Tags">
        {tags.map((named) => (
          <NameLine key={named.name} named={named} canEdit={canEdit} onRename={() => setRenaming(named)}>
            {canEdit && <Remove named={named} />}
          </NameLine>
        ))}
      </ul>
      {renaming !== null && <RenameName what="tag" named={renaming} others={tags.map((t) => t.name)} edit={(to) => ({ kind: 'tags', from: [renaming.name], to })} onClose={() => setRenaming(null)} />}
    </div>
  );
}

function Remove({ named }: { readonly named: NameInUse }) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const words = usedIn(named);
  const remove = (): void => void changeMany({ of: { ids: [...named.ids] }, done: { kind: 'edit', edit: { kind: 'tags', from: [named.name], to: null } }, detail: `tag “${named.name}” removed from ${words}` });
  return (
    <TextButton className="text-xs" onClick={remove}>
      Remove<span className="sr-only"> {named.name}</span>
    </TextButton>
  );
}

/** By the alphabet; spellings that differ only in their capitals are one tag, called as it is most often. */
function tagsOf(heads: readonly Summary[]): NameInUse[] {
  const used = new Map<string, { ids: Set<ArtefactId>; counts: Partial<Record<Summary['kind'], number>>; names: Map<string, number> }>();
  for (const head of heads) {
    if (!('tags' in head)) continue;
    for (const tag of head.tags) {
      const there = used.get(tag.toLowerCase()) ?? { ids: new Set(), counts: {}, names: new Map<string, number>() };
      used.set(tag.toLowerCase(), there);
      if (!there.ids.has(head.id)) there.counts[head.kind] = (there.counts[head.kind] ?? 0) + 1;
      there.ids.add(head.id);
      there.names.set(tag, (there.names.get(tag) ?? 0) + 1);
    }
  }
  const named = [...used.values()].map(({ ids, counts, names }): NameInUse => ({ name: [...names].sort(([, a], [, b]) => b - a)[0]?.[0] ?? '', ids: [...ids], counts }));
  return named.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
}
