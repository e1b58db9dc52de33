import type { ExportFormat } from '@caderno/contract';
import { useState } from 'react';
import { download } from '../api/index.ts';
import { ExportDialog, ExportPart } from './ExportDialog.tsx';

const FORMATS: readonly { readonly format: ExportFormat; readonly name: string; readonly what: string }[] = [
  { format: 'xlsx', name: 'XLSX', what: 'a workbook, made to be read' },
  { format: 'csv', name: 'CSV', what: 'a plain table' },
  { format: 'md', name: 'Markdown', what: 'a document' },
  { format: 'reqif', name: 'ReqIF', what: 'for tools that keep requirements' },
];

/** How all requirements go out as a file. What is written with an id and a version comes in again without doubling. */
export function ExportBasis({ project, onClose }: { readonly project: string; readonly onClose: () => void }) {
  const [format, setFormat] = useState<ExportFormat>('xlsx');
  const [figures, setFigures] = useState(false);
  const [files, setFiles] = useState(false);
  const hasFiles = format !== 'reqif';
  const save = (): Promise<void> => download('exportBasis', { params: { project }, query: { format, figures: figures ? 'yes' : 'no', files: files && hasFiles ? 'yes' : 'no' } });
  return (
    <ExportDialog title="Export the requirements" formats={FORMATS} format={format} onFormat={setFormat} note="Edited and imported again, only what was changed in it changes here." save={save} onClose={onClose}>
      <div className="mt-3">
        <ExportPart checked={figures} onChange={setFigures}>
          conditions and coverage beside each requirement
        </ExportPart>
        {hasFiles && (
          <ExportPart checked={files} onChange={setFiles}>
            the attached files, all in a zip
          </ExportPart>
        )}
      </div>
    </ExportDialog>
  );
}
