import type { ArtefactId } from '@caderno/core/artefacts';
import type { ImportDraft } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { call } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Empty, countOf } from '../look/index.ts';
import { ChooseFile } from './ChooseFile.tsx';
import { MapColumns } from './MapColumns.tsx';
import { Preview } from './Preview.tsx';
import { SheetIsIn } from './SheetIsIn.tsx';
import { TermsFromFile } from '../files/index.ts';
import { useFileDraft } from './useFileDraft.ts';

const FORMATS = [
  ['CSV', 'a row a requirement; any separator and encoding'],
  ['XLSX', 'sheet by sheet; the row of names is found below a title'],
  ['DOCX', 'headings are the outline; paragraphs with ids, and rows of tables, are requirements'],
  ['Markdown', 'headings are the outline, the text below is theirs'],
  ['ReqIF 1.2', '.reqif or .reqifz; hierarchy, fields and relations come along'],
] as const;

/** Getting requirements in: a file, what its columns are, what would change; all on one page, from top to bottom. */
export function ImportPage() {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const there = (first: ArtefactId | null): string => (first === null ? address.basis(project) : address.artefact(project, first));
  const { draft, setMapping, setColumn, reading, done, otherSheets, take, goOn, another, finish } = useFileDraft<ImportDraft>((first) => void navigate(there(first)));
  const [file, setFile] = useState<File | null>(null);
  /** The sheet that is read as terms. */
  const [terms, setTerms] = useState<string | null>(null);
  const choose = (chosen: File): void => {
    setFile(chosen);
    take(chosen.arrayBuffer().then((buffer) => call('uploadImport', { params: { project }, query: { name: chosen.name.slice(-290) }, body: new Uint8Array(buffer) })));
  };
  const stories = (): void => take(call('fetchStories', { params: { project }, body: {} }));
  const reread = (next: ImportDraft): void =>
    take(call('rereadImport', { params: { project, import: next.id }, body: { mapping: next.mapping, reading: next.reading } }));
  if (!canEdit) return <Empty title="Import">Readers cannot import. Ask an analyst of the project.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl">
        <header className="flex items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Import requirements</h1>
          {draft !== null && (
            <span className="text-sm text-ink2">
              {draft.name} · {countOf(draft.records, 'requirement')} in it
            </span>
          )}
          <span className="ml-auto" />
          {draft !== null && <Button onClick={another}>Another file</Button>}
          <Button onClick={() => void navigate(address.basis(project))}>Back to the basis</Button>
        </header>
        {reading && <p role="status" className="mt-4 text-ink2">Reading the file …</p>}
        {done !== null && draft !== null && <SheetIsIn sheet={done.sheet} others={otherSheets} onRead={(sheet) => (goOn(), reread({ ...draft, reading: { ...draft.reading, sheet, header: null } }))} also={(sheet) => <Button onClick={() => setTerms(sheet)}>“{sheet}” as terms</Button>} there={there(done.first)} />}
        {file !== null && terms !== null && <TermsFromFile file={file} sheet={terms} onClose={() => setTerms(null)} />}
        {done !== null ? null : draft === null ? (
          !reading && <ChooseFile onChoose={choose} formats={FORMATS} accept=".csv,.tsv,.txt,.xlsx,.docx,.md,.markdown,.reqif,.reqifz" onStories={stories} fromTracker={search.get('from') === 'stories'} orDesign={address.importingDesign(project)} />
        ) : (
          <div className={reading ? 'opacity-60' : ''}>
            {draft.columns.length > 0 && <MapColumns draft={draft} onMapping={setMapping} onColumn={setColumn} onReread={reread} />}
            <Preview key={draft.id} draft={draft} onSource={(source) => setMapping({ source })} onDone={finish} />
          </div>
        )}
      </div>
    </div>
  );
}
