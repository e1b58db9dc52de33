import { isSuspect, type FeatureId, type RequirementId } from '@caderno/core/artefacts';
import { onlyWrittenFor, withWrittenFor, withoutWrittenFor, type FeatureContent, type FeatureCover, type FeaturePart } from '@caderno/core/scenarios';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { PickArtefact, useStillRight } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly id: FeatureId;
  readonly content: FeatureContent;
  /** The part in which the cursor stands. */
  readonly here: FeaturePart | undefined;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
}

/** The requirements a feature or single scenarios of it are written for. */
export function FeatureRequirements({ id, content, here, canEdit, update }: Props) {
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
              {cover.parts.length > 0 && <p>{numbersOf(content, cover)}</p>}
              {canEdit && (
                <p className="flex flex-wrap gap-x-3">
                  <TextButton onClick={() => update((c) => withoutWrittenFor(c, cover.id, 'all'))}>unlink</TextButton>
                  {here?.kind === 'scenario' && <ForScenario cover={cover} part={here} update={update} />}
                  {cover.parts.length > 0 && (here?.kind !== 'scenario' || cover.parts.includes(here.id)) && <TextButton onClick={() => update((c) => withWrittenFor(c, cover, 'all'))}>for the whole feature</TextButton>}
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
          onPick={(picked) => update((c) => withWrittenFor(c, { id: picked, seenVersion: heads.get(picked)?.version ?? 1 }, 'all'))}
          className="mt-2"
        />
      )}
    </>
  );
}

/** `for scenarios 2, 5`. */
function numbersOf({ parts }: FeatureContent, cover: FeatureCover): string {
  const numbers = parts.filter((p) => cover.parts.includes(p.id)).map((p) => (p.number === 0 ? 'a new one' : String(p.number)));
  return `for ${numbers.length === 1 ? 'scenario' : 'scenarios'} ${numbers.join(', ')}`;
}

/** Whether the scenario at the cursor is written for it. */
function ForScenario({ cover, part, update }: { readonly cover: FeatureCover; readonly part: FeaturePart; readonly update: Props['update'] }) {
  const name = part.number === 0 ? 'the new scenario' : `scenario ${part.number}`;
  if (cover.parts.length === 0) return <TextButton onClick={() => update((c) => onlyWrittenFor(c, cover.id, part.id))}>only for {name}</TextButton>;
  if (cover.parts.includes(part.id)) return cover.parts.length > 1 ? <TextButton onClick={() => update((c) => withoutWrittenFor(c, cover.id, part.id))}>not for {name}</TextButton> : null;
  return <TextButton onClick={() => update((c) => withWrittenFor(c, cover, [part.id]))}>for {name} too</TextButton>;
}
