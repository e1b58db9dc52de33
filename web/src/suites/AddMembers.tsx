import { scenarioId, type CoveringId } from '@caderno/core/artefacts';
import type { EntryId, SuiteEntry, SuiteRule } from '@caderno/core/suites';
import { useMemo } from 'react';
import { useSummaries } from '../api/index.ts';
import { PickArtefact } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import { newEntryId } from '../suiteMembers/index.ts';

export type EditEntries = (change: (entries: readonly SuiteEntry[]) => readonly SuiteEntry[]) => void;

interface Props {
  readonly entries: readonly SuiteEntry[];
  /** The line one was in last: what is added comes into its part. */
  readonly at: EntryId | null;
  readonly onAdd: (members: readonly CoveringId[], part: EntryId | null) => void;
  readonly edit: EditEntries;
}

const NEW_RULE: SuiteRule = { of: 'cases', asks: '', pinned: null };

/** What a suite grows by: a case or scenario found by words, a new heading, a part that a rule keeps. */
export function AddMembers({ entries, at, onAdd, edit }: Props) {
  const offered = useOffered(entries);
  const addPart = (title: string, rule: SuiteRule | null): void => {
    const id = newEntryId();
    edit((now) => [...now, { kind: 'part', id, title, depth: 1, rule, runsIn: null }]);
    focusSoon(id);
  };
  return (
    <span className="flex flex-wrap items-center gap-3 print:hidden">
      <span className="w-44">
        <PickArtefact label="Add a case or scenario" placeholder="Add a case or scenario…" offered={offered} onPick={(id) => onAdd([id], partOf(entries, at))} />
      </span>
      <TextButton onClick={() => addPart('', null)}>New part</TextButton>
      <TextButton onClick={() => addPart('', NEW_RULE)}>Part kept by a rule</TextButton>
    </span>
  );
}

/** A heading that has just come begins to be written. */
function focusSoon(id: EntryId): void {
  setTimeout(() => document.querySelector<HTMLElement>(`[data-entry="${id}"] input`)?.focus(), 60);
}

/** The part that a line is in; of none, the last one: what is added is seen where one is. */
function partOf(entries: readonly SuiteEntry[], at: EntryId | null): EntryId | null {
  const place = at === null ? entries.length - 1 : entries.findIndex((entry) => entry.id === at);
  return entries.slice(0, place + 1).findLast((entry) => entry.kind === 'part')?.id ?? null;
}

/** Cases and scenarios that are not in it yet. */
function useOffered(entries: readonly SuiteEntry[]): readonly { readonly id: CoveringId; readonly title: string }[] {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case').data;
  const features = useSummaries(project, 'feature').data;
  return useMemo(() => {
    const there = new Set(entries.flatMap((entry) => (entry.kind === 'member' ? [entry.of] : [])));
    const all = [
      ...(cases ?? []).flatMap((c) => (c.state === 'withdrawn' ? [] : [{ id: c.id as CoveringId, title: c.title }])),
      ...(features ?? []).flatMap((f) => (f.state === 'withdrawn' ? [] : f.scenarios.map((s) => ({ id: scenarioId(f.id, s.number) as CoveringId, title: `${s.name === '' ? 'a scenario' : s.name} · ${f.title}` })))),
    ];
    return all.filter((o) => !there.has(o.id));
  }, [cases, entries, features]);
}
