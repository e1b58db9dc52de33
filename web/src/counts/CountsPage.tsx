import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import { groupsOf, measuresOf, type Counts, type Listed } from '@caderno/core/listing';
import { useCallback, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { tellFailure, useOwnFields } from '../api/index.ts';
import { rowsFile } from '../files/index.ts';
import { Spread, useFrame, useParameters } from '../frame/index.ts';
import { KeepQuery, QueryLine, columnWord, useSavedCounts } from '../listing/index.ts';
import { Button, Choose, Empty, KIND_NAME, saveFile } from '../look/index.ts';
import { CountedMembers } from './CountedMembers.tsx';
import { CountsBars } from './CountsBars.tsx';
import { CountsTable } from './CountsTable.tsx';
import { countsSheet } from './countsSheet.ts';
import { countsChange, readCounts, type CountsSeen } from './countsView.ts';
import { countsTitle, measureWord } from './countsWords.ts';
import { KeptCounts } from './KeptCounts.tsx';
import { useCounts } from './useCounts.ts';
import { useNames } from './useNames.ts';

type Change = (part: Parameters<typeof countsChange>[0]) => void;

/** What is kept; or counts and sums by two columns, with those who are counted at the right. */
export function CountsPage() {
  const { project } = useFrame();
  const [search, setParameters] = useParameters();
  const fields = useOwnFields(project);
  const seen = useMemo(() => readCounts(search, fields), [fields, search]);
  // Another kind begins with its own columns.
  const change = useCallback<Change>((part) => setParameters({ ...(part.kind === undefined ? {} : { query: null, down: null, across: null, of: null }), ...countsChange(part) }), [setParameters]);
  return seen === null ? <KeptCounts /> : <CountsOf seen={seen} change={change} />;
}

function CountsOf({ seen, change }: { readonly seen: CountsSeen; readonly change: Change }) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const counts = useCounts(seen.kind, seen.query, seen.counts);
  const members = counts == null ? [] : membersAt(counts, seen);
  return (
    <Spread
      chapter="counts"
      leftShare={62}
      opened={seen.line === undefined && seen.column === undefined ? null : JSON.stringify([seen.line, seen.column])}
      leftLabel="Counts"
      rightLabel="Those who are counted"
      left={
        <div className="px-6 pb-10 pt-5">
          <div className="flex items-baseline justify-between gap-4">
            <h1 className="font-serif text-2xl font-semibold">{countsTitle(seen.kind, seen.counts, fields)}</h1>
            <Link className="inline-flex min-h-6 shrink-0 items-center text-sm underline decoration-rule2 underline-offset-2 print:hidden" to="?">
              All counts
            </Link>
          </div>
          <CountsChoices seen={seen} table={counts} change={change} />
          {seen.query !== '' && <p className="mt-1 hidden font-mono text-xs print:block">{seen.query}</p>}
          <div className="mt-4">
            <Shown counts={counts} seen={seen} change={change} title={countsTitle(seen.kind, seen.counts, fields)} />
          </div>
        </div>
      }
      right={<CountedMembers seen={seen} members={members} />}
    />
  );
}

/** What one looks at; where the address names what is not there, nobody. */
function membersAt({ lines, across, whole }: Counts<Listed>, { line, column }: CountsSeen): readonly Listed[] {
  if (line === undefined && column === undefined) return whole.members;
  if (line === undefined) return across.find((c) => c.value === column)?.members ?? [];
  const found = lines.find((l) => l.value === line);
  return (column === undefined ? found?.members : found?.cells[across.findIndex((c) => c.value === column)]?.members) ?? [];
}

interface ShownProps {
  readonly counts: Counts<Listed> | null | undefined;
  readonly seen: CountsSeen;
  readonly change: Change;
  readonly title: string;
}

function Shown({ counts, seen, change, title }: ShownProps) {
  if (counts === undefined) return <p className="text-ink2">Reading …</p>;
  if (counts === null) return <Empty title="Too many cells">Nobody reads a table as large as this. Choose something coarser across, or narrow it down by a query.</Empty>;
  if (counts.lines.length === 0) return <Empty title="Nothing to count">{seen.query === '' ? `There is no ${KIND_NAME[seen.kind][0]} yet.` : `No ${KIND_NAME[seen.kind][0]} matches the query.`}</Empty>;
  return (
    <>
      {seen.counts.as === 'bars' ? <CountsBars counts={counts} view={seen.counts} title={title} onChoose={change} /> : <CountsTable counts={counts} view={seen.counts} chosen={seen} onChoose={change} />}
      <CountedTwice counts={counts} />
    </>
  );
}

/** Said where the cells do not add up to their sums. */
function CountedTwice({ counts: { lines, whole } }: { readonly counts: Counts<Listed> }) {
  const severalTimes = lines.reduce((sum, l) => sum + Math.max(l.members.length, l.cells.reduce((cells, c) => cells + c.members.length, 0)), 0) > whole.members.length;
  return severalTimes ? <p className="mt-2 text-xs text-ink2">What has several values stands in several places; all of them together count each once.</p> : null;
}

interface ChoicesProps {
  readonly seen: CountsSeen;
  readonly table: Counts<Listed> | null | undefined;
  readonly change: Change;
}

function CountsChoices({ seen, table, change }: ChoicesProps) {
  const { project, canEdit, isPast } = useFrame();
  const fields = useOwnFields(project);
  const nameOf = useNames();
  const { save } = useSavedCounts(project);
  const [keeping, setKeeping] = useState(false);
  const { kind, query, counts } = seen;
  const { down, across, measure, as } = counts;
  const columns = groupsOf(kind, fields).map((value) => ({ value, name: columnWord(value, fields) }));
  const title = countsTitle(kind, counts, fields);
  const write = (): void => {
    if (table == null) return;
    rowsFile().workbook(countsSheet(table, counts, fields, nameOf)).then((bytes) => saveFile(`${title.replace(':', ',')}.xlsx`, new Blob([bytes])), tellFailure);
  };
  return (
    <div className="print:hidden">
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <Choose label="Count" showLabel value={kind} options={ARTEFACT_KINDS.map((value) => ({ value, name: KIND_NAME[value][1] }))} onChange={(next: ArtefactKind) => change({ kind: next })} />
        <Choose label="By" showLabel value={down} options={columns} onChange={(next) => change({ down: next })} />
        <Choose label="And" showLabel value={across ?? NONE} options={[{ value: NONE, name: 'nothing else' }, ...columns]} onChange={(next) => change({ across: next === NONE ? null : next })} />
        <Choose label="Show" showLabel value={measure} options={measuresOf(kind, fields).map((value) => ({ value, name: measureWord(value, fields) }))} onChange={(next) => change({ measure: next })} />
        <Choose label="Drawn as" value={as} options={[{ value: 'table', name: 'as a table' }, { value: 'bars', name: 'as bars' }]} onChange={(next) => change({ as: next, line: seen.line, column: seen.column })} />
      </div>
      <div className="mt-2 flex flex-wrap items-start gap-2">
        <QueryLine kind={kind} query={query} onQuery={(next) => change({ query: next })} />
        <Button onClick={write} disabled={table == null}>
          XLSX
        </Button>
        {!isPast && <Button onClick={() => setKeeping(true)}>Keep</Button>}
      </div>
      {keeping && (
        <KeepQuery title="Keep these counts" canShare={canEdit} onSave={(name, everybody) => save({ kind, name, query: query.trim(), everybody, counts })} onClose={() => setKeeping(false)}>
          <p className="rounded-field bg-page2 px-3 py-2 text-sm">{title}</p>
        </KeepQuery>
      )}
    </div>
  );
}

const NONE = 'none';
