import { handOffNumber, type HandOffNumber } from '@caderno/core/handOffs';
import type { HandedOffPart } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** The hand-offs of the project, the latest first. */
export function useHandOffs() {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'handOffs', 'all'], queryFn: () => call('listHandOffs', { params: { project } }) });
}

/** One of them, with what is newer by now; of null nothing is asked. */
export function useHandOff(number: HandOffNumber | null) {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'handOff', number], queryFn: () => call('readHandOff', { params: { project, handOff: number ?? handOffNumber(1) } }), enabled: number !== null });
}

/** What would be handed off, held against an earlier hand-off if one is named. */
export function useHandOffPreview(of: HandedOffPart, configurations: readonly string[], since: HandOffNumber | null) {
  const { project } = useFrame();
  return useQuery({
    queryKey: [project, 'list', 'handOff', of, configurations, since],
    queryFn: () => call('previewHandOff', { params: { project }, body: { of, configurations: [...configurations], ...(since === null ? {} : { since }) } }),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
}
