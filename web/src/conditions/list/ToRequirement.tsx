import type { RequirementId } from '@caderno/core/artefacts';
import { useSummaries } from '../../api/index.ts';
import { PickArtefact } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Button, Dialog } from '../../look/index.ts';

/** The requirement conditions go to, in the version that is before the person. */
export interface Destination {
  readonly id: RequirementId;
  readonly version: number;
}

interface Props {
  readonly title: string;
  readonly except: RequirementId | null;
  readonly onPick: (destination: Destination) => void;
  readonly onClose: () => void;
}

export function ToRequirement({ title, except, onPick, onClose }: Props) {
  const { project } = useFrame();
  const requirements = (useSummaries(project, 'requirement').data ?? []).filter((r) => r.id !== except && r.state !== 'withdrawn');
  const pick = (id: RequirementId): void => {
    const chosen = requirements.find((r) => r.id === id);
    if (chosen !== undefined) onPick({ id, version: chosen.version });
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <PickArtefact label="Requirement" placeholder="Words of the requirement …" offered={requirements.map((r) => ({ id: r.id, title: r.title, aside: r.module }))} onPick={pick} />
      <Button className="mt-5" onClick={onClose}>
        Not now
      </Button>
    </Dialog>
  );
}
