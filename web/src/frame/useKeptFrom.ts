import { modulesKeptFrom } from '@caderno/contract';
import { useMemo } from 'react';
import { useSettings } from '../api/index.ts';
import { useFrame } from './useFrame.ts';

const NOTHING: readonly string[] = [];

/** The modules that others keep: nothing in them is this person's to change. */
export function useKeptFrom(): readonly string[] {
  const { project, person, canEdit, canLead } = useFrame();
  const keepers = useSettings(project).data?.settings.keepers;
  return useMemo(() => (keepers === undefined || !canEdit ? NOTHING : modulesKeptFrom(keepers, { id: person.id, role: canLead ? 'lead' : 'analyst' })), [canEdit, canLead, keepers, person.id]);
}

/** The module for something new beside something else: that one's, or none where others keep it. */
export function useModuleBeside(): (module: string | undefined) => string {
  const kept = useKeptFrom();
  return useMemo(() => (module) => (module === undefined || kept.includes(module) ? '' : module), [kept]);
}
