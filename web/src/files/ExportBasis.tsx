import { EXPORT_FORMATS, type ExportFormat } from '@caderno/contract';
import { useState } from 'react';
import { download, tellFailure } from '../api/index.ts';
import { Button, Dialog } from '../look/index.ts';

const FORMAT: Record<ExportFormat, { readonly name: string; readonly what: string }> = {
  csv: { name: 'CSV', what: 'a plain table' },
  xlsx: { name: 'XLSX', what: 'a workbook, made to be read' },
  md: { name: 'Markdown', what: 'a document' },
  reqif: { name: 'ReqIF', what: 'for tools that keep requirements' },
};

/** How all requirements go out as a file. What is written with an id and a version comes in again without doubling. */
export function ExportBasis({ project, onClose }: { readonly project: string; readonly onClose: () => void }) {
  const [format, setFormat] = useState<ExportFormat>('xlsx');
  const [figures, setFigures] = useState(false);
  const [files, setFiles] = useState(false);
  const [busy, setBusy] = useState(false);
  const hasFiles = format !== 'reqif';
  const save = async (): Promise<void> => {
    setBusy(true);
    try {
      await download('exportBasis', { params: { project }, query: { format, figures: figures ? 'yes' : 'no', files: files && hasFiles ? 'yes' : 'no' } });
      onClose();
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title="Export the requirements" onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <fieldset>
          <legend className="text-xs text-ink2">As</legend>
          {EXPORT_FORMATS.map((value) => (
            <label key={value} className="flex min-h-7 items-center gap-2">
              <input type="radio" name="format" checked={format === value} onChange={() => setFormat(value)} />
              <span className="w-24">{FORMAT[value].name}</span>
              <span className="text-ink2">{FORMAT[value].what}</span>
            </label>
          ))}
        </fieldset>
        <div className="mt-3">
          <label className="flex min-h-7 items-center gap-2">
            <input type="checkbox" checked={figures} onChange={(event) => setFigures(event.target.checked)} />
            conditions and coverage beside each requirement
          </label>
          {hasFiles && (
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" checked={files} onChange={(event) => setFiles(event.target.checked)} />
              the attached files, all in a zip
            </label>
          )}
        </div>
        <p className="mt-3 text-xs text-ink2">Edited and imported again, only what was changed in it changes here.</p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy}>
            {busy ? 'Writing …' : 'Save the file'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
