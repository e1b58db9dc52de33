import type { CaseId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { X } from 'lucide-react';
import { memo, useState } from 'react';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { MarginNote, PickArtefact } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, IconButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly id: CaseId;
  readonly content: CaseContent;
  readonly canEdit: boolean;
  readonly update: Editing<CaseContent>['update'];
}

/** The cases that must have been executed before this one. */
export const DependsOn = memo(function DependsOn({ id, content, canEdit, update }: Props) {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case', 'state:any').data ?? [];
  const [adding, setAdding] = useState(false);
  const { dependsOn } = content;
  const add = (other: CaseId): void => {
    update((c) => ({ ...c, dependsOn: [...c.dependsOn.filter((d) => d.id !== other), { id: other }] }));
    setAdding(false);
  };
  if (dependsOn.length === 0 && !canEdit) return null;
  return (
    <MarginNote title="Depends on">
      <ul>
        {dependsOn.map((d) => {
          const other = cases.find((c) => c.id === d.id);
          return (
            <li key={d.id} className="group flex items-baseline gap-1.5">
              <Link className="shrink-0 font-mono underline decoration-rule2" to={address.cases(project, d.id)}>
                {d.id}
              </Link>
              <span className="min-w-0 flex-1 text-ink">
                {other?.title} {other?.state === 'withdrawn' && <span className="text-brick">is withdrawn</span>}
              </span>
              {canEdit && (
                <IconButton label={`No longer depends on ${d.id}`} small title="Take away" onClick={() => update((c) => ({ ...c, dependsOn: c.dependsOn.filter((x) => x.id !== d.id) }))} icon={<X size={12} aria-hidden="true" />} />
              )}
            </li>
          );
        })}
      </ul>
      {canEdit &&
        (adding ? (
          <PickArtefact label="A case that must have been executed before" placeholder="C-… or words of a title" offered={cases.filter((c) => c.state !== 'withdrawn' && c.id !== id && !dependsOn.some((d) => d.id === c.id))} onPick={add} />
        ) : (
          <TextButton onClick={() => setAdding(true)}>{dependsOn.length === 0 ? 'None – add' : 'Add a case'}</TextButton>
        ))}
    </MarginNote>
  );
});
