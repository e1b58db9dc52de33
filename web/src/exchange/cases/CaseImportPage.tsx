import type { ArtefactId } from '@caderno/core/artefacts';
import type { CaseDraft } from '@caderno/contract';
import { useNavigate } from 'react-router';
import { call } from '../../api/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Empty, countOf } from '../../look/index.ts';
import { ChooseFile } from '../ChooseFile.tsx';
import { SheetIsIn } from '../SheetIsIn.tsx';
import { useFileDraft } from '../useFileDraft.ts';
import { CasePreview } from './CasePreview.tsx';
import { MapCaseColumns } from './MapCaseColumns.tsx';

const FORMATS = [
  ['CSV', 'a row a step or a row a case; any separator and encoding'],
  ['XLSX', 'sheet by sheet; merged, repeated or empty cells of a case'],
  ['Markdown', 'a heading a case, its steps as a list'],
] as const;

/** Getting cases in: a file, what its columns are, what would change; all on one page, from top to bottom. */
export function CaseImportPage() {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const there = (first: ArtefactId | null): string => (first === null ? address.cases(project) : address.artefact(project, first));
  const { draft, setMapping, setColumn, reading, done, otherSheets, take, goOn, another, finish } = useFileDraft<CaseDraft>((first) => void navigate(there(first)));
  const choose = (chosen: File): void => take(chosen.arrayBuffer().then((buffer) => call('uploadCases', { params: { project }, query: { name: chosen.name.slice(-290) }, body: new Uint8Array(buffer) })));
  const reread = (next: CaseDraft): void => take(call('rereadCases', { params: { project, import: next.id }, body: { mapping: next.mapping, reading: next.reading } }));
  if (!canEdit) return <Empty title="Import">Readers cannot import. Ask an analyst of the project.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl">
        <header className="flex items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Import cases</h1>
          {draft !== null && (
            <span className="text-sm text-ink2">
              {draft.name} · {countOf(draft.records, draft.format === 'markdown' ? 'case' : 'row')} in it
            </span>
          )}
          <span className="ml-auto" />
          {draft !== null && <Button onClick={another}>Another file</Button>}
          <Button onClick={() => void navigate(address.cases(project))}>Back to the cases</Button>
        </header>
        {reading && <p role="status" className="mt-4 text-ink2">Reading the file …</p>}
        {done !== null && draft !== null && <SheetIsIn sheet={done.sheet} others={otherSheets} onRead={(sheet) => (goOn(), reread({ ...draft, reading: { ...draft.reading, sheet, header: null } }))} there={there(done.first)} />}
        {done !== null ? null : draft === null ? (
          !reading && <ChooseFile onChoose={choose} formats={FORMATS} accept=".csv,.tsv,.txt,.xlsx,.md,.markdown" orDesign={address.importingDesign(project)} />
        ) : (
          <div className={reading ? 'opacity-60' : ''}>
            {draft.columns.length > 0 && <MapCaseColumns draft={draft} onMapping={setMapping} onColumn={setColumn} onReread={reread} />}
            <CasePreview key={`${draft.id} ${draft.reading.sheet ?? ''}`} draft={draft} onDone={finish} />
          </div>
        )}
      </div>
    </div>
  );
}
