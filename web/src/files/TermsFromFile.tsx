import { GUESS_ALL, guessTermColumns, planTerms, readTerms, type SourceDocument, type TermColumns } from '@caderno/core/exchange';
import { LIMITS, type ProjectSettings } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { useSaveSettings, useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, Waiting, countOf, locale } from '../look/index.ts';
import { fileProblemSentence } from './fileProblemSentence.ts';
import { rowsFile } from './rowsFile.ts';

interface Props {
  readonly file: File;
  /** The sheet to begin with; null: the first with content. */
  readonly sheet?: string | null;
  readonly onClose: () => void;
}

const MOST = { term: LIMITS.name, definition: LIMITS.definition, forms: LIMITS.forms };

/** Takes the terms of a table into the glossary, after a look at which columns hold them and what would change. */
export function TermsFromFile({ file, sheet: first = null, onClose }: Props) {
  const { project } = useFrame();
  const stored = useSettings(project).data;
  const [sheet, setSheet] = useState(first);
  const { data: document, error, refetch } = useQuery({
    queryKey: ['terms file', file.name, file.size, file.lastModified, sheet],
    queryFn: async () => rowsFile().read(new Uint8Array(await file.arrayBuffer()), { ...GUESS_ALL, sheet }, null),
    retry: false,
  });
  return (
    <Dialog title={`Terms of ${file.name}`} onClose={onClose} wide>
      {document === undefined || stored === undefined ? (
        error === null ? <Waiting onRetry={() => void refetch()}>Reading …</Waiting> : <p className="text-sm text-brick">The file cannot be read any more. Choose it again.</p>
      ) : (
        <>
          {document.sheets.length > 1 && <Choose label="Sheet" showLabel value={sheet ?? ''} options={[{ value: '', name: 'the first with content' }, ...document.sheets.map((value) => ({ value, name: value }))]} onChange={(value) => setSheet(value === '' ? null : value)} />}
          <Planned key={`${sheet ?? ''} ${document.columns.join('\t')}`} document={document} stored={stored} onClose={onClose} />
        </>
      )}
    </Dialog>
  );
}

interface PlannedProps {
  readonly document: SourceDocument;
  readonly stored: { readonly version: number; readonly settings: ProjectSettings };
  readonly onClose: () => void;
}

function Planned({ document, stored: { version, settings }, onClose }: PlannedProps) {
  const { project } = useFrame();
  const save = useSaveSettings(project);
  const [columns, setColumns] = useState(() => guessTermColumns(document));
  const read = useMemo(() => (columns === null ? { terms: [], leftOut: [] } : readTerms(document, columns, MOST)), [columns, document]);
  const plan = useMemo(() => planTerms(settings.glossary, read.terms, () => crypto.randomUUID(), MOST.forms), [read, settings.glossary]);
  const errors = document.problems.filter((p) => p.severity === 'error');
  const tooMany = plan.glossary.length > LIMITS.terms;
  const take = async (): Promise<void> => {
    if (!(await save(version, { ...settings, glossary: plan.glossary }))) return;
    toast.success(`${countOf(plan.added.length, 'term')} added to the glossary, ${plan.changed.length} changed.`);
    onClose();
  };
  return (
    <>
      {errors.map((problem, i) => (
        <p key={i} className="text-sm text-brick">
          {fileProblemSentence(problem)}
        </p>
      ))}
      {columns === null ? <p className="text-sm">Terms need two columns: the word, and what it means.</p> : <WhichColumns names={document.columns} columns={columns} onChange={setColumns} />}
      <p role="status" className="mt-3 text-sm">
        {plan.added.length + plan.changed.length === 0 ? 'Nothing would change.' : `${countOf(plan.added.length, 'term')} added, ${plan.changed.length} changed, ${plan.same} as they are.`}
      </p>
      {read.leftOut.length > 0 && (
        <p className="mt-1 text-sm text-ochre-ink">
          Left out, longer than {MOST.term} or {MOST.definition.toLocaleString(locale())} characters: {read.leftOut.length === 1 ? 'row' : 'rows'} {read.leftOut.slice(0, 8).join(', ')}
          {read.leftOut.length > 8 && ` and ${read.leftOut.length - 8} more`}.
        </p>
      )}
      {tooMany && <p className="mt-1 text-sm text-brick">A glossary may have {LIMITS.terms.toLocaleString(locale())} terms; this would be {plan.glossary.length.toLocaleString(locale())}. Take fewer.</p>}
      <dl className="mt-2 max-h-[40vh] overflow-y-auto text-sm" tabIndex={0} aria-label="Terms that would be added or changed">
        {plan.added.slice(0, SHOWN).map((term) => (
          <Line key={term.id} term={term.term} mark="new" definition={term.definition} />
        ))}
        {plan.changed.slice(0, SHOWN).map(({ from, to }) => (
          <Line key={to.id} term={to.term} mark="changed" definition={to.definition} before={from.definition === to.definition ? undefined : from.definition} />
        ))}
      </dl>
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={errors.length > 0 || tooMany || plan.added.length + plan.changed.length === 0} onClick={() => void take()}>
          Take in {countOf(plan.added.length + plan.changed.length, 'term')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </>
  );
}

/** How many lines of each kind are shown; all are counted. */
const SHOWN = 100;

function WhichColumns({ names, columns, onChange }: { readonly names: readonly string[]; readonly columns: TermColumns; readonly onChange: (columns: TermColumns) => void }) {
  const all = names.map((value) => ({ value, name: value }));
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Choose label="Term" showLabel value={columns.term} options={all} onChange={(term) => onChange({ ...columns, term })} />
      <Choose label="What it means" showLabel value={columns.definition} options={all} onChange={(definition) => onChange({ ...columns, definition })} />
      <Choose label="Other forms" showLabel value={columns.forms ?? ''} options={[{ value: '', name: 'none' }, ...all]} onChange={(forms) => onChange({ ...columns, forms: forms === '' ? null : forms })} />
    </div>
  );
}

function Line({ term, mark, definition, before }: { readonly term: string; readonly mark: string; readonly definition: string; readonly before?: string | undefined }) {
  return (
    <div className="grid grid-cols-[160px_70px_1fr] gap-x-3 border-b border-rule py-1.5">
      <dt className="break-words font-semibold">{term}</dt>
      <dd className="text-xs leading-5 text-ink2">{mark}</dd>
      <dd className="min-w-0 break-words font-serif">
        {before !== undefined && <del className="mr-2 text-ink2">{before}</del>}
        {definition}
      </dd>
    </div>
  );
}
