import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import type { Chosen, ComesAlong, ExportDesign } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, download, failureSentence, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, KIND_NAME, countOf, locale, Tick } from '../look/index.ts';

interface Props {
  readonly of: Chosen;
  /** Which they are: `12 cases`. */
  readonly words: string;
  readonly onClose: () => void;
}

/** Saves a part of the project with all that it uses as a design file, which another project brings in. */
export function CarryDialog({ of, words, onClose }: Props) {
  const { project } = useFrame();
  const [files, setFiles] = useState(true);
  const [busy, setBusy] = useState(false);
  const along = useQuery({ queryKey: [project, 'list', 'along', of], queryFn: ({ signal }) => call('readAlong', { params: { project }, body: { of } }, { signal }) });
  const save = async (form: ExportDesign['form']): Promise<void> => {
    setBusy(true);
    try {
      await download('exportDesign', { params: { project }, body: { of, files, form } });
      if (form === 'file') onClose();
    } catch (error) {
      tellFailure(error);
    }
    setBusy(false);
  };
  return (
    <Dialog title={`Carry ${words} to another project`} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void save('file');
        }}
      >
        <p className="text-ink2">A design file takes them along with all that they use. There it is brought in under Import; what came before is known again, so that nothing is there twice.</p>
        {along.error !== null ? <p className="mt-3 rounded-field bg-brick-wash px-3 py-2">{failureSentence(along.error)}</p> : <Along along={along.data} />}
        {(along.data?.files ?? 0) > 0 && (
          <Tick checked={files} onChange={setFiles} className="mt-3">
            with {countOf(along.data?.files ?? 0, 'attached file')} ({Math.max(1, Math.round((along.data?.bytes ?? 0) / 1024)).toLocaleString(locale())} kB)
          </Tick>
        )}
        <div className="mt-4 flex items-center gap-2">
          <button type="button" className="text-xs text-ink2 underline decoration-rule2 underline-offset-2" disabled={busy} onClick={() => void save('schema')}>
            Its JSON Schema
          </button>
          <span className="ml-auto" />
          <Button onClick={onClose}>Cancel</Button>
          <Button data-first type="submit" look="accent" disabled={busy || along.error !== null}>
            {busy ? 'Writing …' : 'Save the design file'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function Along({ along }: { readonly along: ComesAlong | undefined }) {
  return (
    <div className="mt-3" role="status" aria-label="What comes along">
      {along === undefined ? (
        <p className="text-ink2">Looking what they use …</p>
      ) : (
        <ul>
          {ARTEFACT_KINDS.filter((kind) => along.counts[kind] > 0).map((kind) => (
            <li key={kind} className="flex gap-3">
              <span className="w-12 text-right font-mono text-xs leading-5">{along.counts[kind].toLocaleString(locale())}</span>
              <span>{KIND_NAME[kind][along.counts[kind] === 1 ? 0 : 1]}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
