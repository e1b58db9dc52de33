import type { HandOffNumber } from '@caderno/core/handOffs';
import type { HandedOffPart } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** The hand-offs of the project, the latest first. */
export function useHandOffs() {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'handOffs', 'all'], queryFn: () => call('listHandOffs', { params: { project } }) });
}

/** One of them, with what is newer by now. */
export function useHandOff(number: HandOffNumber) {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'handOff', number], queryFn: () => call('readHandOff', { params: { project, handOff: number } }) });
}

/** What would be handed off. */
export function useHandOffPreview(of: HandedOffPart, configurations: readonly string[]) {
  const { project } = useFrame();
  return useQuery({
    queryKey: [project, 'list', 'handOff', of, configurations],
    queryFn: () => call('previewHandOff', { params: { project }, body: { of, configurations: [...configurations] } }),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
}
