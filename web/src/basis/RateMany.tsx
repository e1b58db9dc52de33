import type { RequirementId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { toast } from 'sonner';
import { useSettings } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { PickAction, countOf } from '../look/index.ts';

interface Props {
  readonly chosen: readonly RequirementId[];
  readonly onDone: () => void;
}

/** Rates the risk of the selected requirements on the scale of the project, each time as one entry of the journal. */
export function RateMany({ chosen, onDone }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const scale = useSettings(project).data?.settings.riskScale;
  const [busy, setBusy] = useState(false);
  if (scale === undefined) return null;
  const rate = async (part: 'likelihood' | 'impact', step: number): Promise<void> => {
    const what = `${countOf(chosen.length, 'requirement')}: ${part} ${scale[part][step] ?? ''}`;
    setBusy(true);
    const changed = await changeMany({ of: { ids: [...chosen] }, done: { kind: 'edit', edit: { kind: 'rating', part, step } }, detail: what });
    setBusy(false);
    if (changed === null) return;
    toast.success(`${what}. The journal can undo it.`);
    onDone();
  };
  return (
    <span aria-busy={busy} className="flex gap-x-3.5">
      {(['likelihood', 'impact'] as const).map((part) => (
        <PickAction key={part} label={`Set ${part}`} options={scale[part].map((name, i) => ({ value: String(i), name }))} onPick={(step) => void rate(part, Number(step))} />
      ))}
    </span>
  );
}
