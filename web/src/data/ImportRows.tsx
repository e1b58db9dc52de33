import type { Parameter, Row } from '@caderno/core/cases';
import { GUESS_ALL, ROW_IMPORTS, guessRowColumns, guessValueReading, planRows, type ReadingOptions, type RowImport, type RowsPlan, type SourceDocument, type TableReading, type ValueReading } from '@caderno/core/exchange';
import { LIMITS } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { fileProblemSentence, rowsFile } from '../files/index.ts';
import { Button, Dialog, PARAMETER_TYPE_WORD, countOf, locale, Answer } from '../look/index.ts';
import { HowMeant, typedCells } from './HowMeant.tsx';
import { HowRead } from './HowRead.tsx';
import { ImportColumns } from './ImportColumns.tsx';
import type { EditTable } from './table.ts';

interface Props {
  readonly file: File;
  readonly rows: readonly Row[];
  readonly parameters: readonly Parameter[];
  readonly update: EditTable;
  readonly onClose: () => void;
}

const HOW_WORD: Record<RowImport, string> = { replace: 'in place of those that are there', add: 'after those that are there', update: 'changing those of the same name' };

/** Takes rows of a file into the data of a case, after a look at what each column is and what would change; one edit, undone as one. */
export function ImportRows({ file, rows, parameters, update, onClose }: Props) {
  const [reading, setReading] = useState<ReadingOptions>(GUESS_ALL);
  const [header, setHeader] = useState<TableReading['header']>(null);
  const { data: document, error } = useQuery({
    queryKey: ['rows file', file.name, file.size, file.lastModified, reading, header],
    queryFn: async () => rowsFile().read(new Uint8Array(await file.arrayBuffer()), reading, header),
    retry: false,
  });
  return (
    <Dialog title={`Rows of ${file.name}`} onClose={onClose} wide>
      {document === undefined ? (
        <p className="text-sm text-ink2">{error === null ? 'Reading …' : 'The file cannot be read any more. Choose it again.'}</p>
      ) : (
        <>
          <HowRead document={document} reading={reading} header={header} onChange={setReading} onHeader={setHeader} />
          {/* Anew for every way of reading: columns may be others. */}
          <Planned key={JSON.stringify([reading, header, document.columns])} document={document} rows={rows} parameters={parameters} update={update} onClose={onClose} />
        </>
      )}
    </Dialog>
  );
}

interface PlannedProps extends Omit<Props, 'file'> {
  readonly document: SourceDocument;
}

function Planned({ document, rows, parameters, update, onClose }: PlannedProps) {
  const [columns, setColumns] = useState(() => guessRowColumns(document.columns, parameters));
  const [how, setHow] = useState<RowImport>(rows.length === 0 ? 'replace' : 'update');
  const guessed = useMemo(() => guessValueReading(typedCells(document, columns, parameters)), [columns, document, parameters]);
  const [chosen, setChosen] = useState<Partial<ValueReading>>({});
  const values = useMemo(() => ({ ...guessed, ...chosen }), [chosen, guessed]);
  // Ids are made once, so that what is seen is what is done.
  const plan = useMemo(() => planRows(document, columns, { rows, parameters }, how, () => crypto.randomUUID().slice(0, 8), values), [columns, document, how, parameters, rows, values]);
  const errors = document.problems.filter((p) => p.severity === 'error');
  const tooMany = plan.rows.length > LIMITS.rows || plan.parameters.length > LIMITS.parameters;
  const isTooLarge = useMemo(() => sizeOf(plan.rows) > LIMITS.body, [plan.rows]);
  const isUnkeepable = useMemo(() => document.records.some((r) => r.cells.some((cell) => cell !== null && (cell.length > LIMITS.cell || cell.includes('\0') || !cell.isWellFormed()))), [document]);
  return (
    <>
      <ul className="mt-1 text-sm">
        {document.problems.slice(0, 6).map((problem, i) => (
          <li key={i} className={problem.severity === 'error' ? 'text-brick' : 'text-ochre-ink'}>
            {problem.line !== null && `line ${problem.line}: `}
            {fileProblemSentence(problem)}
          </li>
        ))}
      </ul>
      {errors.length === 0 && (
        <>
          <ImportColumns document={document} columns={columns} parameters={parameters} onChange={setColumns} />
          <fieldset className="mt-3 flex flex-wrap gap-x-5 text-sm">
            <legend className="font-semibold">Where the rows go</legend>
            {ROW_IMPORTS.map((choice) => (
              <Answer key={choice} name="how" checked={how === choice} onPick={() => setHow(choice)}>
                {HOW_WORD[choice]}
              </Answer>
            ))}
          </fieldset>
          <HowMeant document={document} values={values} columns={columns} parameters={parameters} plan={plan} onChange={(part) => setChosen((now) => ({ ...now, ...part }))} />
          <Summary plan={plan} parameters={parameters} />
          {tooMany && <p className="mt-1 text-sm text-brick">A table may have {LIMITS.rows.toLocaleString(locale())} rows and {LIMITS.parameters} columns; this would be {plan.rows.length.toLocaleString(locale())} and {plan.parameters.length}. Take fewer.</p>}
          {isTooLarge && <p className="mt-1 text-sm text-brick">All of it together is more than the {Math.round(LIMITS.body / 1024 / 1024)} MB a table may have. Take fewer rows or columns.</p>}
          {isUnkeepable && <p className="mt-1 text-sm text-brick">A cell is longer than the {LIMITS.cell.toLocaleString(locale())} characters one may have, or holds signs that are no text. Mend it in the file.</p>}
        </>
      )}
      <div className="mt-4 flex gap-3">
        <Button
          look="accent"
          disabled={errors.length > 0 || tooMany || isTooLarge || isUnkeepable || plan.added + plan.changed + plan.removed === 0}
          onClick={() => {
            update((data) => ({ ...data, rows: plan.rows, parameters: plan.parameters }));
            onClose();
          }}
        >
          Take in {countOf(document.records.length, 'row')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </>
  );
}

/** About how many bytes rows take on their way: what stands around each cell and each row counted in. */
function sizeOf(rows: readonly Row[]): number {
  return rows.reduce((sum, row) => sum + 90 + row.name.length + Object.values(row.cells).reduce((n, cell) => n + 16 + cell.length, 0), 0);
}

function Summary({ plan, parameters }: { readonly plan: RowsPlan; readonly parameters: readonly Parameter[] }) {
  const fresh = plan.parameters.length - parameters.length;
  const parts = [plan.added > 0 ? `${countOf(plan.added, 'row')} added` : '', plan.changed > 0 ? `${countOf(plan.changed, 'row')} changed` : '', plan.removed > 0 ? `${countOf(plan.removed, 'row')} removed` : '', fresh > 0 ? `${countOf(fresh, 'parameter')} made` : ''].filter(Boolean);
  return (
    <div className="mt-3 text-sm">
      <p role="status">{parts.length === 0 ? 'Nothing would change.' : `${parts.join(', ')}.`}</p>
      {plan.problems.length > 0 && (
        <ul className="mt-1 text-ochre-ink">
          {plan.problems.slice(0, 5).map((problem) => (
            <li key={`${problem.line} ${problem.column}`}>
              line {problem.line}, {problem.column}: “{problem.value.slice(0, 60)}” is not a {PARAMETER_TYPE_WORD[problem.type]}. It is kept as it is written.
            </li>
          ))}
          {plan.problems.length > 5 && <li>and {plan.problems.length - 5} more</li>}
        </ul>
      )}
    </div>
  );
}
