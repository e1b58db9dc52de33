import type { ArtefactId } from '@caderno/core/artefacts';
import { keepersWords, modulesKeptFrom, type Keepers } from '@caderno/contract';
import type { ReactNode } from 'react';
import { useMembers, useModulesOf, useSettings } from '../api/index.ts';
import { KeptContext, useFrame } from './useFrame.ts';

interface Props {
  readonly id: ArtefactId;
  readonly children: ReactNode;
}

/** The page of an artefact. Where others keep its module it is there to be read and talked about, and says whose it is. */
export function KeptModule({ id, children }: Props) {
  const { project, person, canEdit, canLead } = useFrame();
  const modules = useModulesOf(project, id);
  const keepers = useSettings(project).data?.settings.keepers ?? [];
  const closed = canEdit ? modulesKeptFrom(keepers, { id: person.id, role: canLead ? 'lead' : 'analyst' }) : [];
  const kept = keepers.find(({ module }) => closed.includes(module) && modules.includes(module));
  return (
    <KeptContext value={kept !== undefined}>
      {kept !== undefined && <WhoKeeps kept={kept} />}
      {children}
    </KeptContext>
  );
}

function WhoKeeps({ kept }: { readonly kept: Keepers }) {
  const members = useMembers(useFrame().project).data ?? [];
  const names = members.filter((m) => kept.people.includes(m.id)).map((m) => m.name);
  return (
    <p role="note" aria-label="Who changes this" className="border-b border-rule2 bg-page2 px-5 py-1.5 text-sm text-ink2">
      Only {keepersWords(names)} change what is in <b className="font-semibold text-ink">{kept.module}</b>. You can read it, and leave a remark.
    </p>
  );
}
