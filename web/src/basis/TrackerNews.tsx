import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { call, tellFailure, useTracker } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { countOf } from '../look/index.ts';

/** The tracker is asked again when it was not for so long. */
const ASK_AGAIN_MS = 5 * 60_000;

/** Says when stories have changed in the tracker since they were imported; asks it now and then, in the background. That it does not answer is told on the settings page only. */
export function TrackerNews() {
  const { project, canEdit } = useFrame();
  const client = useQueryClient();
  const state = useTracker(project).data;
  const connected = state?.connected === true;
  const checkedAt = state?.checkedAt ?? null;
  useEffect(() => {
    const stale = checkedAt === null || Date.now() - Date.parse(checkedAt) > ASK_AGAIN_MS;
    if (!connected || !stale || !canEdit) return;
    call('checkTracker', { params: { project }, body: {} }).then((found) => client.setQueryData([project, 'list', 'tracker'], found), tellFailure);
  }, [canEdit, checkedAt, client, connected, project]);
  if (state === undefined || state.newStories + state.changedStories === 0) return null;
  const parts = [state.newStories > 0 ? countOf(state.newStories, 'new story', 'new stories') : '', state.changedStories > 0 ? countOf(state.changedStories, 'changed story', 'changed stories') : ''].filter(Boolean);
  return (
    <p className="mt-2 rounded-field bg-blue-wash px-3 py-1.5 text-sm">
      The story tracker has {parts.join(' and ')}.{' '}
      {canEdit && (
        <Link className="text-blue underline" to={`${address.importing(project)}?from=stories`}>
          Look at them
        </Link>
      )}
    </p>
  );
}
