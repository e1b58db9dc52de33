import type { FeatureId } from '@caderno/core/artefacts';
import { movedToFeature, outlineOf, type FeatureContent, type FeaturePart } from '@caderno/core/scenarios';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { tellFailure, useArtefact, useSummaries } from '../api/index.ts';
import { PickArtefact, someIds, useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog } from '../look/index.ts';

interface Props {
  readonly id: FeatureId;
  /** What is shown, saved or not. */
  readonly content: FeatureContent;
  readonly version: number;
  readonly part: FeaturePart;
  readonly onClose: () => void;
}

/** A scenario goes into another feature, with all that is its own; both are saved as one entry. */
export function MoveScenarioDialog(props: Props) {
  const { project } = useFrame();
  const [to, setTo] = useState<FeatureId | null>(null);
  const features = useSummaries(project, 'feature').data ?? [];
  const name = outlineOf(props.content).scenarios.find((s) => s.part === props.part.id)?.name ?? '';
  return (
    <Dialog title={`Move ${name === '' ? 'the scenario' : `“${name}”`}`} onClose={props.onClose}>
      <PickArtefact
        label="The feature it goes to"
        placeholder="a feature …"
        offered={features.filter((f) => f.id !== props.id && f.state !== 'withdrawn').map((f) => ({ id: f.id, title: f.title, aside: f.path }))}
        onPick={setTo}
      />
      {to !== null && <Move key={to} {...props} to={to} />}
    </Dialog>
  );
}

function Move({ id, content, version, part, to, onClose }: Props & { readonly to: FeatureId }) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const { data, error } = useArtefact(project, 'feature', to);
  const [busy, setBusy] = useState(false);
  if (data === undefined) return <p className="mt-3 text-sm text-ink2">{error === null ? `Reading ${to} …` : `${to} cannot be read.`}</p>;
  const moved = movedToFeature(content, data.content, part.id, someIds()());
  const left = leftBehind(content, part);
  const run = async (): Promise<void> => {
    if (moved === null) return;
    setBusy(true);
    try {
      const changed = [{ kind: 'feature' as const, id, version, content: moved.from }, { kind: 'feature' as const, id: to, version: data.summary.version, content: moved.to }];
      if ((await write({ changed, detail: `A scenario of ${id} moved to ${to}` })) === null) return;
      toast.success(`It stands in ${to} now. The journal can undo it.`);
      onClose();
      await navigate(address.scenarios(project, to));
    } catch (failure) {
      tellFailure(failure);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mt-3 text-sm">
      <p>
        To <span className="font-mono text-xs">{to}</span> <strong>{data.summary.title}</strong>, behind its other scenarios. It gets a number there; what it covers comes along.
      </p>
      {moved === null && <p className="mt-2 text-brick">The two features are written in different languages: it cannot be read there.</p>}
      {moved !== null && left.length > 0 && <p className="mt-2 text-ochre-ink">What stands above it stays here: {left.join(', ')}.</p>}
      <p className="mt-4 flex gap-3">
        <Button look="accent" disabled={moved === null || busy} onClick={() => void run()}>
          Move it
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </p>
      <p className="mt-2 text-xs text-ink2">What you typed here is saved along with it. It is one entry of the journal.</p>
    </div>
  );
}

/** What held for the scenario without being its own. */
function leftBehind(content: FeatureContent, part: FeaturePart): string[] {
  const { tags, scenarios } = outlineOf(content);
  const scenario = scenarios.find((s) => s.part === part.id);
  const steps = scenarios.filter((s) => s.kind === 'background' && s.line < (scenario?.line ?? 0) && (s.rule === null || s.rule === scenario?.rule)).flatMap((s) => s.steps);
  return [...tags, ...steps.map((s) => `${s.keyword} ${s.text}`)];
}
