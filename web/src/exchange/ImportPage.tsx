import type { ArtefactId } from '@caderno/core/artefacts';
import type { ImportDraft } from '@caderno/contract';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call, tellFailure } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Empty, Section, countOf } from '../look/index.ts';
import { ChooseFile } from './ChooseFile.tsx';
import { MapColumns } from './MapColumns.tsx';
import { Preview } from './Preview.tsx';
import { TermsFromFile } from '../files/index.ts';

/** Getting requirements in: a file, what its columns are, what would change; all on one page, from top to bottom. */
export function ImportPage() {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const [draft, setDraft] = useState<ImportDraft | null>(null);
  const [reading, setReading] = useState(false);
  const [file, setFile] = useState<File | null>(null);
  /** The sheet that is read as terms. */
  const [terms, setTerms] = useState<string | null>(null);
  /** A sheet is in, and the workbook has others. */
  const [done, setDone] = useState<{ readonly first: ArtefactId | null; readonly sheet: string } | null>(null);
  const take = (answer: Promise<ImportDraft>): void => {
    setReading(true);
    answer.then(setDraft, tellFailure).finally(() => setReading(false));
  };
  const choose = (chosen: File): void => {
    setFile(chosen);
    take(chosen.arrayBuffer().then((buffer) => call('uploadImport', { params: { project }, query: { name: chosen.name.slice(-290) }, body: new Uint8Array(buffer) })));
  };
  const stories = (): void => take(call('fetchStories', { params: { project }, body: {} }));
  const reread = (next: ImportDraft): void =>
    take(call('rereadImport', { params: { project, import: next.id }, body: { mapping: next.mapping, reading: next.reading } }));
  const there = (first: ArtefactId | null): string => (first === null ? address.basis(project) : address.artefact(project, first));
  const otherSheets = (draft?.sheets ?? []).filter((name) => name !== (draft?.reading.sheet ?? draft?.sheets[0]));
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
          {draft !== null && <Button onClick={() => (setDraft(null), setDone(null))}>Another file</Button>}
          <Button onClick={() => void navigate(address.basis(project))}>Back to the basis</Button>
        </header>
        {reading && <p role="status" className="mt-4 text-ink2">Reading the file …</p>}
        {done !== null && draft !== null && (
          <Section title={`“${done.sheet}” is in`} aside="the workbook has other sheets; each comes in by itself">
            <div className="mt-3 flex flex-wrap gap-2">
              {otherSheets.map((sheet) => (
                <span key={sheet} className="inline-flex items-center gap-1">
                  <Button onClick={() => (setDone(null), reread({ ...draft, reading: { ...draft.reading, sheet, header: null } }))}>Read “{sheet}”</Button>
                  <Button onClick={() => setTerms(sheet)}>“{sheet}” as terms</Button>
                </span>
              ))}
              <Link to={there(done.first)} className="inline-flex h-8 items-center rounded-[6px] border border-blue bg-blue px-3 text-sm font-semibold text-on-accent">
                Open what came in
              </Link>
            </div>
          </Section>
        )}
        {file !== null && terms !== null && <TermsFromFile file={file} sheet={terms} onClose={() => setTerms(null)} />}
        {done !== null ? null : draft === null ? (
          !reading && <ChooseFile onChoose={choose} onStories={stories} fromTracker={search.get('from') === 'stories'} />
        ) : (
          <div className={reading ? 'opacity-60' : ''}>
            {draft.columns.length > 0 && <MapColumns draft={draft} onChange={setDraft} onReread={reread} />}
            <Preview key={draft.id} draft={draft} onSource={(source) => setDraft({ ...draft, mapping: { ...draft.mapping, source } })} onDone={(first) => (otherSheets.length > 0 ? setDone({ first, sheet: draft.reading.sheet ?? draft.sheets[0] ?? '' }) : void navigate(there(first)))} />
          </div>
        )}
      </div>
    </div>
  );
}
