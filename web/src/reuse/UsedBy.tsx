import type { ArtefactId, Pin } from '@caderno/core/artefacts';
import type { ConnectedArtefact } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCoverageRows, useReuse } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';

const MOST_SHOWN = 8;

/** What uses an artefact, or what it uses: direct ones first, then those through others. */
export function UsedBy({ id, side }: { readonly id: ArtefactId; readonly side: 'users' | 'uses' }) {
  const { project } = useFrame();
  const connected = useReuse(project, id).data?.[side] ?? [];
  const [all, setAll] = useState(false);
  if (connected.length === 0) return <p>{side === 'users' ? 'Nothing uses it yet.' : 'It uses nothing.'}</p>;
  return (
    <>
      <ul>
        {connected.slice(0, all ? connected.length : MOST_SHOWN).map((c) => (
          <li key={c.id} className="flex gap-1.5 py-0.5 leading-6">
            <Link className="h-6 shrink-0 font-mono underline decoration-rule2" to={address.artefact(project, c.id)}>
              {c.id}
            </Link>
            <span className="min-w-0">
              <span className="text-ink">{c.title}</span> {notes(c)}
            </span>
          </li>
        ))}
      </ul>
      <p className="flex gap-3">
        {connected.length > MOST_SHOWN && !all && <TextButton onClick={() => setAll(true)}>and {connected.length - MOST_SHOWN} more</TextButton>}
        <Link className="leading-6 underline decoration-rule2" to={`${address.reuse(project)}?of=${id}&only=1`}>
          Show graph
        </Link>
      </p>
    </>
  );
}

function notes({ distance, follows, pinned, state }: ConnectedArtefact): string {
  return [distance > 1 ? 'through others' : '', pinWords(pinned) || (follows ? '' : 'behind a pinned or agreed version'), state === 'withdrawn' ? 'withdrawn' : ''].filter(Boolean).join(', ');
}

function pinWords(pinned: Pin): string {
  if (pinned === 'agreed') return 'follows what is agreed';
  return pinned === null ? '' : `pinned to v${pinned}`;
}

/** What saving will touch, said before it is saved. */
export function Reach({ id }: { readonly id: ArtefactId }) {
  const { project } = useFrame();
  const users = (useReuse(project, id).data?.users ?? []).filter((u) => u.state !== 'withdrawn');
  // Of cases that call others their own rows say little: what they come to when opened is counted.
  const known = useCoverageRows(project);
  if (users.length === 0) return null;
  const reached = users.filter((u) => u.follows);
  const cases = reached.filter((u) => u.instances !== null);
  const instances = cases.reduce((n, c) => n + (known?.counts(c.id)?.instances ?? c.instances ?? 0), 0);
  const agreed = reached.filter((u) => u.state === 'agreed').length;
  const kept = users.length - reached.length;
  return (
    <p role="status" className="mt-2 rounded-field bg-ochre-wash px-3 py-1.5 text-sm">
      Saving reaches {countOf(cases.length, 'case')} with {countOf(instances, 'instance')}
      {reached.length > cases.length && ` and ${countOf(reached.length - cases.length, 'other shared steps', 'other shared steps')}`}
      {agreed > 0 && `; ${agreed} of them agreed`}. {kept > 0 && `${countOf(kept, 'user')} ${kept === 1 ? 'is' : 'are'} not reached: pinned, or following what is agreed.`}
    </p>
  );
}
