import type { ArtefactId } from '@caderno/core/artefacts';
import type { DesignDraft } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, tellFailure } from '../../api/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Empty } from '../../look/index.ts';
import { ChooseFile } from '../ChooseFile.tsx';
import { DesignPreview } from './DesignPreview.tsx';

const FORMATS = [['Design file', 'the .json that another project saved: select there what is to come along, then Carry to another project']] as const;

/** Bringing in a part of another project: its design file, what it would do, and doing it. */
export function DesignImportPage() {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<DesignDraft | null>(null);
  const [reading, setReading] = useState(false);
  const choose = (chosen: File): void => {
    setReading(true);
    chosen
      .arrayBuffer()
      .then((buffer) => call('uploadDesign', { params: { project }, query: { name: chosen.name.slice(-290) }, body: new Uint8Array(buffer) }))
      .then(setDraft, tellFailure)
      .finally(() => setReading(false));
  };
  const leave = (first: ArtefactId | null): void => void navigate(first === null ? address.cases(project) : address.artefact(project, first));
  if (!canEdit) return <Empty title="Import">Readers cannot import. Ask an analyst of the project.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl">
        <header className="flex flex-wrap items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Bring in a part of another project</h1>
          {draft !== null && <span className="text-sm text-ink2">from {draft.from.name}</span>}
          <span className="ml-auto" />
          {draft !== null && <Button onClick={() => setDraft(null)}>Another file</Button>}
          <Button onClick={() => void navigate(address.cases(project))}>Back to the cases</Button>
        </header>
        {reading && <p role="status" className="mt-4 text-ink2">Reading the file …</p>}
        {draft === null ? !reading && <ChooseFile onChoose={choose} formats={FORMATS} accept=".json" /> : <DesignPreview key={draft.id} draft={draft} onDone={leave} />}
      </div>
    </div>
  );
}
