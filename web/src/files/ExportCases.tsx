import type { CaseFormat, Chosen, ExportCases as Order } from '@caderno/contract';
import { useState } from 'react';
import { download } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Answer } from '../look/index.ts';
import { ExportDialog, ExportPart } from './ExportDialog.tsx';

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
  const isTable = format === 'xlsx' || format === 'csv';
  const isInstances = isTable && layout === 'instanceRows';
  const save = (): Promise<void> => download('exportCases', { params: { project }, body: { of, format, layout: isTable ? layout : 'stepRows', figures, sheets, files: files && !isInstances && format !== 'schema' } });
  const note = isInstances ? 'For reading and executing elsewhere: it does not come in again.' : format === 'json' || format === 'schema' ? '' : 'Edited and imported again, only what was changed in it changes here.';
  return (
    <ExportDialog title={`Export ${words}`} formats={FORMATS} format={format} onFormat={setFormat} note={note} save={save} onClose={onClose}>
      {isTable && (
        <fieldset className="mt-3">
          <legend className="text-xs text-ink2">With</legend>
          {LAYOUTS.map(({ layout: value, what }) => (
            <Answer key={value} name="layout" checked={layout === value} onPick={() => setLayout(value)}>
              {what}
            </Answer>
          ))}
        </fieldset>
      )}
      {format !== 'schema' && (
        <div className="mt-3">
          <ExportPart checked={figures} disabled={isInstances} onChange={setFigures}>
            requirements and coverage beside each case
          </ExportPart>
          {format === 'xlsx' && (
            <ExportPart checked={sheets} disabled={isInstances} onChange={setSheets}>
              a sheet for each module
            </ExportPart>
          )}
          <ExportPart checked={files} disabled={isInstances} onChange={setFiles}>
            the attached files, all in a zip
          </ExportPart>
        </div>
      )}
    </ExportDialog>
  );
}
