import { EMPTY_CASE, parameterId, type CaseContent, type Cover, type Parameter, type ParameterId, type RowId } from '@caderno/core/cases';
import type { Constants } from '@caderno/core/shared';
import { examplesTable, isColumnName, withColumnRenamed, withExamplesTable, type ExamplesTable, type FeatureContent, type PartId } from '@caderno/core/scenarios';
import { useCallback, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { someIds } from '../../artefacts/index.ts';
import { DataGrid, MakeRows, RedundantRows, rowShows, useColumnChecks, useGained, type EditTable } from '../../data/index.ts';
import { TextButton } from '../../look/index.ts';
import type { Editing } from '../../versions/index.ts';
import type { CoveredScenarios } from '../useCoveredScenarios.ts';
import { RowsOfSet } from './RowsOfSet.tsx';

interface Props {
  readonly content: FeatureContent;
  readonly part: PartId;
  /** Which of its tables of examples, from 0. */
  readonly at: number;
  readonly covered: CoveredScenarios;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
}

const NO_COVERS: readonly Cover[] = [];
const NO_CONSTANTS: Constants = new Map();

/** A table of examples with the habits of a spreadsheet: each row tells what it shows, and every change is written into the text. */
export function ExamplesGrid({ content, part, at, covered, canEdit, update }: Props) {
  const table = useMemo(() => examplesTable(content, part, at), [at, content, part]);
  const [chosen, setChosen] = useState<RowId | null>(null);
  const [making, setMaking] = useState(false);
  const covers = content.parts.find((p) => p.id === part)?.covers ?? NO_COVERS;
  const checks = useColumnChecks(covers, covered.conditions);
  const asCase = covered.caseOf(part);
  const id = asCase?.id ?? NOT_SAVED;
  const shows = useMemo(() => (asCase === null ? NOTHING_SHOWN : rowShows(asCase.id, asCase.content.rows, covered.coverages)), [asCase, covered.coverages]);
  const gained = useGained(id, useMemo(() => asCase?.content ?? NO_CASE, [asCase]), covered.conditions, covered.coverages, covered.mostItems);
  const edit = useCallback<EditTable>(
    (change) => {
      const ids = someIds();
      update((c) => {
        const now = examplesTable(c, part, at);
        return now === null ? c : withExamplesTable(c, part, at, withoutMadeNames(now, change(now)), ids());
      });
    },
    [at, part, update],
  );
  const rename = useCallback((parameter: Parameter, name: string) => tellUnless(name, () => update((c) => withColumnRenamed(c, part, parameter.name, name) ?? c)), [part, update]);
  const remove = useCallback((gone: ParameterId) => edit((t) => ({ ...t, parameters: t.parameters.filter((p) => p.id !== gone) })), [edit]);
  const add = useCallback((name: string) => tellUnless(name, () => edit((t) => (t.parameters.some((p) => p.name === name.trim()) ? t : { ...t, parameters: [...t.parameters, columnOf(name.trim())] }))), [edit]);
  if (table === null) return null;
  return (
    <div>
      {canEdit && (
        <p className="mb-1 flex flex-wrap gap-x-4 text-xs">
          <TextButton onClick={() => setMaking(true)}>Generate rows</TextButton>
          <RowsOfSet content={content} part={part} at={at} update={update} />
        </p>
      )}
      <DataGrid label={`Examples ${at + 1}`} rows={table.rows} parameters={table.parameters} canEdit={canEdit} update={edit} shows={shows} chosen={chosen} onChoose={setChosen} running={null} runnable={table.rows} constants={NO_CONSTANTS} checks={checks} onRename={rename} onRemoveColumn={remove} onAddColumn={add} />
      <RedundantRows rows={table.rows} shows={shows} canEdit={canEdit} update={edit} />
      {making && <MakeRows rows={table.rows} parameters={table.parameters} checks={checks} gained={gained} estimate={null} onAdd={(made) => edit((t) => ({ ...t, rows: [...t.rows, ...made] }))} onClose={() => setMaking(false)} />}
    </div>
  );
}

const NOT_SAVED = 'F-0/0';
const NO_CASE: CaseContent = EMPTY_CASE;
const NOTHING_SHOWN: ReturnType<typeof rowShows> = new Map();

/** New rows come with a name of the grid's own; where no row has any, a column for such names is not wanted. */
function withoutMadeNames(before: ExamplesTable, after: ExamplesTable): ExamplesTable {
  if (before.rows.some((r) => r.name !== '')) return after;
  const known = new Set(before.rows.map((r) => r.id));
  return { ...after, rows: after.rows.map((row) => (known.has(row.id) || !/^row \d+$/.test(row.name) ? row : { ...row, name: '' })) };
}

function columnOf(name: string): Parameter {
  return { id: parameterId(name), name, type: 'text', default: '', description: '' };
}

/** A name that cannot stand between bars and angle brackets is told, and not taken. */
function tellUnless(name: string, act: () => void): void {
  if (isColumnName(name.trim())) act();
  else toast.error('A column needs a name without < > | and \\.');
}
