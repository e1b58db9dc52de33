import type { CaseFormat, Chosen, ExportCases as Order } from '@caderno/contract';
import { useState } from 'react';
import { download, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog } from '../look/index.ts';

interface Props {
  readonly of: Chosen;
  /** Which they are: `12 cases`. */
  readonly words: string;
  readonly onClose: () => void;
}

const FORMATS: readonly { readonly format: CaseFormat; readonly name: string; readonly what: string }[] = [
  { format: 'xlsx', name: 'XLSX', what: 'a workbook, made to be read' },
  { format: 'csv', name: 'CSV', what: 'a plain table' },
  { format: 'md', name: 'Markdown', what: 'a document' },
  { format: 'json', name: 'JSON', what: 'all that a case holds' },
  { format: 'schema', name: 'JSON Schema', what: 'what the JSON is checked by' },
];

const LAYOUTS: readonly { readonly layout: Order['layout']; readonly what: string }[] = [
  { layout: 'stepRows', what: 'a row for each step' },
  { layout: 'caseRows', what: 'a row for each case' },
  { layout: 'instanceRows', what: 'a row for each instance, all values in place' },
];

/** How cases go out as a file. What is written with an id and a version comes in again without doubling. */
export function ExportCases({ of, words, onClose }: Props) {
  const { project } = useFrame();
  const [format, setFormat] = useState<CaseFormat>('xlsx');
  const [layout, setLayout] = useState<Order['layout']>('stepRows');
  const [figures, setFigures] = useState(false);
  const [sheets, setSheets] = useState(false);
  const [files, setFiles] = useState(false);
  const [busy, setBusy] = useState(false);
  const isTable = format === 'xlsx' || format === 'csv';
  const isInstances = isTable && layout === 'instanceRows';
  const save = async (): Promise<void> => {
    setBusy(true);
    try {
      await download('exportCases', { params: { project }, body: { of, format, layout: isTable ? layout : 'stepRows', figures, sheets, files: files && !isInstances && format !== 'schema' } });
      onClose();
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title={`Export ${words}`} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <fieldset>
          <legend className="text-xs text-ink2">As</legend>
          {FORMATS.map(({ format: value, name, what }) => (
            <label key={value} className="flex min-h-7 items-center gap-2">
              <input type="radio" name="format" checked={format === value} onChange={() => setFormat(value)} />
              <span className="w-24">{name}</span>
              <span className="text-ink2">{what}</span>
            </label>
          ))}
        </fieldset>
        {isTable && (
          <fieldset className="mt-3">
            <legend className="text-xs text-ink2">With</legend>
            {LAYOUTS.map(({ layout: value, what }) => (
              <label key={value} className="flex min-h-7 items-center gap-2">
                <input type="radio" name="layout" checked={layout === value} onChange={() => setLayout(value)} />
                {what}
              </label>
            ))}
          </fieldset>
        )}
        {format !== 'schema' && (
          <div className="mt-3">
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" checked={figures} disabled={isInstances} onChange={(event) => setFigures(event.target.checked)} />
              requirements and coverage beside each case
            </label>
            {format === 'xlsx' && (
              <label className="flex min-h-7 items-center gap-2">
                <input type="checkbox" checked={sheets} disabled={isInstances} onChange={(event) => setSheets(event.target.checked)} />
                a sheet for each module
              </label>
            )}
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" checked={files} disabled={isInstances} onChange={(event) => setFiles(event.target.checked)} />
              the attached files, all in a zip
            </label>
          </div>
        )}
        <p className="mt-3 text-xs text-ink2">{isInstances ? 'For reading and executing elsewhere: it does not come in again.' : format === 'json' || format === 'schema' ? '' : 'Edited and imported again, only what was changed in it changes here.'}</p>
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
