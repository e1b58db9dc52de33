import type { ArtefactId } from '@caderno/core/artefacts';
import { keepersWords } from '@caderno/contract';
import type { ReactNode } from 'react';
import { useMembers, useModulesOf, useSettings } from '../api/index.ts';
import { KeptContext, useFrame } from './useFrame.ts';
import { useKeptFrom } from './useKeptFrom.ts';

interface Props {
  readonly id: ArtefactId;
  readonly children: ReactNode;
}

/** The page of an artefact. Where others keep its module it is there to be read and talked about, and says whose it is. */
export function KeptModule({ id, children }: Props) {
  const { project } = useFrame();
  const keptFrom = useKeptFrom();
  const kept = useModulesOf(project, id).find((module) => keptFrom.includes(module));
  return (
    <KeptContext value={kept !== undefined}>
      {kept !== undefined && <WhoKeeps module={kept} />}
      {children}
    </KeptContext>
  );
}

function WhoKeeps({ module }: { readonly module: string }) {
  const { project } = useFrame();
  const people = useSettings(project).data?.settings.keepers.find((k) => k.module === module)?.people ?? [];
  const names = (useMembers(project).data ?? []).filter((m) => people.includes(m.id)).map((m) => m.name);
  return (
    <p role="note" aria-label="Who changes this" className="border-b border-rule2 bg-page2 px-5 py-1.5 text-sm text-ink2 print:hidden">
      Only {keepersWords(names)} change what is in <b className="font-semibold text-ink">{module}</b>. You can read it, and leave a remark.
    </p>
  );
}
