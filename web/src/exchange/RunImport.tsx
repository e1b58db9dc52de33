import type { ArtefactId } from '@caderno/core/artefacts';
import type { Change } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button } from '../look/index.ts';

interface Props {
  /** Of the file. */
  readonly id: string;
  readonly run: (commandId: string) => Promise<Change>;
  /** Conflicts nobody has chosen between. */
  readonly open: number;
  readonly nothing: boolean;
  /** Whether its source has no name yet. */
  readonly unnamed: boolean;
  /** Told the first artefact that was brought in or changed. */
  readonly onDone: (first: ArtefactId | null) => void;
}

const ASK_MS = 300;

/** Runs the import, with progress and cancel; done, it can be undone from where it is told. */
export function RunImport({ id, run: begin, open, nothing, unnamed, onDone }: Props) {
  const { project } = useFrame();
  const refresh = useRefresh(project);
  const [running, setRunning] = useState(false);
  const progress = useQuery({
    queryKey: [project, 'list', 'importing', id],
    queryFn: () => call('readImportProgress', { params: { project, import: id } }),
    enabled: running,
    refetchInterval: ASK_MS,
  }).data;
  const undo = (change: string): void =>
    void call('undoChange', { params: { project, change }, body: {} }, { commandId: crypto.randomUUID() }).then(() => {
      toast.success('The import is undone.');
      return refresh();
    }, tellFailure);
  const run = (): void => {
    setRunning(true);
    begin(crypto.randomUUID())
      .then(async (change) => {
        await refresh();
        toast.success(`Imported ${change.detail}: ${change.note}.`, { duration: 12_000, action: { label: 'Undo', onClick: () => undo(change.id) } });
        onDone(change.artefact);
      }, tellFailure)
      .finally(() => setRunning(false));
  };
  const cancel = (): void => void call('cancelImport', { params: { project, import: id } }).catch(tellFailure);
  if (running) {
    const share = progress === undefined || progress.total === 0 ? null : Math.floor((progress.done * 100) / progress.total);
    return (
      <span className="flex items-center gap-3" role="status">
        <progress aria-label="Progress of the import" max={100} {...(share === null ? {} : { value: share })} className="w-32" />
        <span className="text-ink2">{share === null ? 'Starting …' : `${share} %`}</span>
        <Button onClick={cancel}>Stop</Button>
      </span>
    );
  }
  return (
    <>
      {open > 0 && <span className="text-ochre-ink">{open} to choose</span>}
      {nothing && <span className="text-ink2">Nothing to import</span>}
      <Button look="accent" disabled={open > 0 || nothing || unnamed} onClick={run}>
        Import
      </Button>
    </>
  );
}
