import type { ArtefactId } from '@caderno/core/artefacts';
import type { FeaturesDraft } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure } from '../../api/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Empty } from '../../look/index.ts';
import { ChooseFeatures } from './ChooseFeatures.tsx';
import { FeaturePreview } from './FeaturePreview.tsx';
import { packed } from './packed.ts';

/** Bringing in features: the files, what they would do, and doing it. */
export function FeatureImportPage() {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<FeaturesDraft | null>(null);
  const [reading, setReading] = useState(false);
  const take = async (files: readonly File[]): Promise<void> => {
    const brought = await packed(files);
    if (brought === null) toast.error('There is no feature among these files: their names end in .feature. Nothing was changed.');
    else setDraft(await call('uploadFeatures', { params: { project }, query: { name: brought.name.slice(-290) }, body: brought.bytes }));
  };
  const choose = (files: readonly File[]): void => {
    setReading(true);
    void take(files).catch(tellFailure).finally(() => setReading(false));
  };
  const leave = (first: ArtefactId | null): void => void navigate(first === null ? address.scenarios(project) : address.artefact(project, first));
  if (!canEdit) return <Empty title="Import">Readers cannot import. Ask an analyst of the project.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl">
        <header className="flex flex-wrap items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Import features</h1>
          {draft !== null && <span className="text-sm text-ink2">{draft.name}</span>}
          <span className="ml-auto" />
          {draft !== null && <Button onClick={() => setDraft(null)}>Other files</Button>}
          <Button onClick={() => void navigate(address.scenarios(project))}>Back to the scenarios</Button>
        </header>
        {reading && <p role="status" className="mt-4 text-ink2">Reading the files …</p>}
        {draft === null ? !reading && <ChooseFeatures onChoose={choose} /> : <FeaturePreview key={draft.id} draft={draft} onDone={leave} />}
      </div>
    </div>
  );
}
