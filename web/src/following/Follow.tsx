import type { ArtefactId } from '@caderno/core/artefacts';
import type { Following } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

const WHY_WORDS: Record<NonNullable<Following['why']>, string> = { chosen: 'Its changes and remarks come into your inbox.', owner: 'You own it, or are asked: its changes and remarks come into your inbox.', wrote: 'You wrote in it: its changes and remarks come into your inbox.' };

/** Whether one follows an artefact, to be changed by a click. Of how it was nobody hears. */
export function Follow({ id }: { readonly id: ArtefactId }) {
  const { project, isPast } = useFrame();
  const client = useQueryClient();
  const queryKey = [project, 'following', id];
  const { data } = useQuery({ queryKey, queryFn: () => call('readFollowing', { params: { project, id } }), enabled: !isPast });
  if (data === undefined) return null;
  const choose = async (follows: boolean): Promise<void> => {
    client.setQueryData(queryKey, { ...data, follows });
    try {
      client.setQueryData(queryKey, await call('follow', { params: { project, id }, body: { follows } }));
    } catch (error) {
      tellFailure(error);
      client.setQueryData(queryKey, data);
    }
  };
  return (
    <label title={data.why === null ? 'Its changes and remarks would come into your inbox.' : WHY_WORDS[data.why]} className="inline-flex h-chip items-center gap-1.5 whitespace-nowrap text-xs text-ink2 print:hidden">
      <input type="checkbox" checked={data.follows} onChange={(event) => void choose(event.target.checked)} />
      Follow
    </label>
  );
}
