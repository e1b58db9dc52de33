import { isSuspect, type FeatureId, type RequirementId } from '@caderno/core/artefacts';
import type { FeatureContent } from '@caderno/core/scenarios';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { PickArtefact, useStillRight } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly id: FeatureId;
  readonly content: FeatureContent;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
}

/** The requirements a feature is written for. */
export function FeatureRequirements({ id, content, canEdit, update }: Props) {
  const { project } = useFrame();
  const stillRight = useStillRight();
  const all = useSummaries(project, 'requirement').data ?? [];
  const heads = new Map(all.map((r) => [r.id, r]));
  const linked = new Set<RequirementId>(content.requirements.map((r) => r.id));
  return (
    <>
      <ul className="space-y-1.5">
        {content.requirements.map((cover) => {
          const head = heads.get(cover.id);
          return (
            <li key={cover.id}>
              <Link className="text-ink underline decoration-rule2" to={address.basis(project, cover.id)}>
                <span className="font-mono text-xs">{cover.id}</span> {head?.title ?? '…'}
              </Link>
              {head !== undefined && isSuspect(cover, head) && <p className="text-brick">It changed since. {canEdit && <TextButton onClick={() => void stillRight([{ from: id, to: cover.id, now: head.version }])}>still right</TextButton>}</p>}
              {canEdit && (
                <p>
                  <TextButton onClick={() => update((c) => ({ ...c, requirements: c.requirements.filter((r) => r.id !== cover.id) }))}>unlink</TextButton>
                </p>
              )}
            </li>
          );
        })}
      </ul>
      {content.requirements.length === 0 && <p>None yet: nobody sees what it is written for.</p>}
      {canEdit && (
        <PickArtefact
          label="A requirement it is written for"
          placeholder="a requirement …"
          offered={all.filter((r) => r.type !== 'heading' && r.state !== 'withdrawn' && !linked.has(r.id)).map((r) => ({ id: r.id, title: r.title }))}
          onPick={(picked) => update((c) => ({ ...c, requirements: [...c.requirements, { id: picked, seenVersion: heads.get(picked)?.version ?? 1 }] }))}
          className="mt-2"
        />
      )}
    </>
  );
}
