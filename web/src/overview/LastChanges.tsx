import type { ArtefactId } from '@caderno/core/artefacts';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Section, ago, entryWords } from '../look/index.ts';

const MOST = 8;

/** What changed last of some kinds: who did what, and when. */
export function LastChanges({ isShown }: { readonly isShown: (id: ArtefactId) => boolean }) {
  const { project } = useFrame();
  const changes = useQuery({ queryKey: [project, 'journal', 'overview'], queryFn: () => call('listChanges', { params: { project }, query: {} }) }).data;
  const shown = (changes ?? []).flatMap((change) => (change.artefact !== null && change.size === 1 && !change.undone && isShown(change.artefact) ? [{ ...change, artefact: change.artefact }] : []));
  // Each artefact once, by what was done to it last.
  const last = shown.filter((change, i) => shown.findIndex((c) => c.artefact === change.artefact) === i).slice(0, MOST);
  if (last.length === 0) return null;
  return (
    <Section title="Changed last" actions={<Link className="underline decoration-rule2" to={address.journal(project)}>Journal</Link>}>
      <ul>
        {last.map((change) => (
          <li key={change.id} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <span className="w-10 shrink-0 font-mono text-xs text-ink2">{change.artefact}</span>
            <Link className="min-w-0 flex-1 hover:underline" to={address.artefact(project, change.artefact)}>
              {change.title}
            </Link>
            <span className="shrink-0 text-xs text-ink2">
              {change.author} {entryWords(change)}, {ago(change.at)}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
