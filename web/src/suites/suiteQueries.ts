import type { AskedItems } from '@caderno/core/coverage';
import type { SuiteContent, SuiteEntry } from '@caderno/core/suites';
import type { BodyOf } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo } from 'react';
import { call } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** What the suites of the project come to. */
export function useSuiteLines() {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'list', 'suites'], queryFn: () => call('readSuites', { params: { project } }) });
}

/** A suite as it is written at the moment. */
export type WrittenSuite = Pick<SuiteContent, 'entries' | 'configurations'>;

/** What a suite comes to as it is written; until that is known, what it came to before. */
export function useSuiteFigures({ entries, configurations }: WrittenSuite) {
  const { project } = useFrame();
  const settled = useDeferredValue(entries);
  // Headings change nothing of it.
  const asked = useMemo(() => settled.map((entry): SuiteEntry => (entry.kind === 'part' ? { ...entry, title: '' } : entry)), [settled]);
  const key = useMemo(() => JSON.stringify([asked, configurations]), [asked, configurations]);
  return useQuery({ queryKey: [project, 'list', 'suite', key], queryFn: () => call('measureSuite', { params: { project }, body: { entries: asked, configurations: [...configurations] } }), placeholderData: keepPreviousData, gcTime: 60_000 });
}

/** Which items each member of a suite shows. */
export function useShowing({ entries, configurations }: WrittenSuite) {
  const { project } = useFrame();
  const key = useMemo(() => JSON.stringify([entries, configurations]), [entries, configurations]);
  return useQuery({ queryKey: [project, 'list', 'suite', 'showing', key], queryFn: () => call('readShowing', { params: { project }, body: { entries: [...entries], configurations: [...configurations] } }), gcTime: 0 });
}

/** Which of the items asked for each case and scenario shows; null: nothing is asked yet. */
export function useCandidates(asked: BodyOf<'readCandidates'> | null) {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'list', 'suite', 'candidates', asked], queryFn: () => call('readCandidates', { params: { project }, body: asked ?? {} }), enabled: asked !== null, gcTime: 0 });
}

/** What would show the items that a suite misses. */
export function useAdditions({ entries, configurations }: WrittenSuite, missed: AskedItems) {
  const { project } = useFrame();
  const key = useMemo(() => JSON.stringify([entries, configurations]), [entries, configurations]);
  return useQuery({ queryKey: [project, 'list', 'suite', 'additions', missed, key], queryFn: () => call('findAdditions', { params: { project }, body: { entries: [...entries], configurations: [...configurations], ...missed } }), gcTime: 0 });
}
