import type { TrackerConnection } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { call, tellFailure, useTracker } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, TextButton, ago, TextBox, Labelled } from '../look/index.ts';

interface Props {
  readonly tracker: TrackerConnection | null;
  readonly canEdit: boolean;
  readonly onChange: (tracker: TrackerConnection | null) => void;
}

const FAILURE_WORDS = { unreachable: 'It does not answer.', slow: 'It takes too long to answer.', refused: 'It refuses the request; check address and project.', unreadable: 'Its answer cannot be read; check the address.', too_large: 'It answers with too much.' } as const;

/** Where the stories are. What comes from there is previewed before anything is changed here. */
export function TrackerForm({ tracker, canEdit, onChange }: Props) {
  const { project, canEdit: mayCheck } = useFrame();
  const client = useQueryClient();
  const state = useTracker(project).data;
  const check = (): void => void call('checkTracker', { params: { project }, body: {} }).then((found) => client.setQueryData([project, 'list', 'tracker'], found), tellFailure);
  if (tracker === null) {
    return (
      <div className="mt-2">
        <p className="text-sm text-ink2">Stories of a tracker come in as requirements, and later changes there are noticed.</p>
        {canEdit && (
          <Button className="mt-2" onClick={() => onChange({ kind: 'storyboard', address: 'http://127.0.0.1:3221', project })}>
            Connect one
          </Button>
        )}
      </div>
    );
  }
  return (
    <div className="mt-2 space-y-2 text-sm">
      <div className="flex flex-wrap gap-3 text-xs text-ink2">
        <Labelled label="Address" pale>
          <TextBox value={tracker.address} readOnly={!canEdit} maxLength={2000} onChange={(text) => onChange({ ...tracker, address: text })} className="w-80 text-sm" />
        </Labelled>
        <Labelled label="Project there" pale>
          <TextBox value={tracker.project} readOnly={!canEdit} maxLength={200} onChange={(text) => onChange({ ...tracker, project: text })} className="w-48 text-sm" />
        </Labelled>
      </div>
      {state?.connected === true && (
        <p className={state.failure === null ? 'text-ink2' : 'text-brick'} role="status">
          {state.checkedAt === null ? 'Not asked yet.' : `Asked ${ago(state.checkedAt)}.`} {state.failure === null ? state.checkedAt !== null && `${state.newStories} new, ${state.changedStories} changed since the last import.` : FAILURE_WORDS[state.failure]}
        </p>
      )}
      <p className="flex gap-4">
        {mayCheck && state?.connected === true && <Button onClick={check}>Ask it now</Button>}
        {canEdit && <TextButton onClick={() => onChange(null)}>disconnect</TextButton>}
      </p>
    </div>
  );
}
