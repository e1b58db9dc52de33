import type { ArtefactKind } from '@caderno/core/artefacts';
import { ownColumn } from '@caderno/core/listing';
import type { Summary } from '@caderno/contract';
import { useMemo } from 'react';
import { useMembers, useModules, useOwnFields, useSettings, useSummaries } from '../api/index.ts';
import type { ChangedField } from './changes.ts';

/** What the project has already in a field of free text. */
export function useKnownValues(project: string, kind: ArtefactKind, field: ChangedField): readonly string[] {
  const modules = useModules(project);
  const members = useMembers(project).data;
  const depths = useSettings(project).data?.settings.depths;
  const heads = useSummaries(project, kind).data as readonly Summary[] | undefined;
  const tags = useMemo(() => [...new Set(heads?.flatMap((head) => ('tags' in head ? head.tags : [])))].sort((a, b) => a.localeCompare(b, 'en')), [heads]);
  const own = useOwnFields(project).find((f) => ownColumn(f.id) === field);
  if (own?.type === 'person') return members?.map((m) => m.name) ?? [];
  if (own?.type === 'choices') return own.choices.map((c) => c.name);
  switch (field) {
    case 'module':
      return modules;
    case 'owner':
      return members?.map((m) => m.name) ?? [];
    case 'addTag':
    case 'takeTag':
      return tags;
    case 'addDepth':
    case 'takeDepth':
      return depths ?? [];
    default:
      return [];
  }
}
