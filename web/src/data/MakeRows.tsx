import type { CoverageItem, Strength } from '@caderno/core/conditions';
import type { Parameter, ParameterId, Row, RowId } from '@caderno/core/cases';
import type { CombinedColumn, CombinedRows, RandomColumn, RandomRows } from '@caderno/core/making';
import { typedList } from '@caderno/core/values';
import { LIMITS } from '@caderno/contract';
import { wrap, type Remote } from 'comlink';
import { useMemo, useState } from 'react';
import { Button, Choose, Dialog, PARAMETER_TYPE_WORD, STRENGTH_WORD, combinationProblemSentence, constraintProblemSentence, countOf, options, locale, TextArea, TextBox, Labelled, NumberBox } from '../look/index.ts';
import { useBeside } from '../worker/index.ts';
import type { ColumnCheck } from './columnCheck.ts';
import type { MakingWorker } from './making.worker.ts';
import { MadeRows } from './MadeRows.tsx';
import type { DataTable } from './table.ts';

interface Props extends DataTable {
  readonly checks: ReadonlyMap<ParameterId, ColumnCheck>;
  /** What rows would show that nothing shows yet, and none before them. */
  readonly gained: (rows: readonly Row[]) => ReadonlyMap<RowId, readonly CoverageItem[]>;
  /** Minutes for each row; null: not estimated. */
  readonly estimate: number | null;
  readonly onAdd: (rows: readonly Row[]) => void;
  readonly onClose: () => void;
}

let shared: Remote<MakingWorker> | null = null;

function worker(): Remote<MakingWorker> {
  shared ??= wrap<MakingWorker>(new Worker(new URL('./making.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

const HOW = { combined: 'values combined', byChance: 'by chance' } as const;
type How = keyof typeof HOW;

interface Column {
  readonly parameter: Parameter;
  readonly on: boolean;
  /** Parted by commas or lines. */
  readonly values: string;
  readonly from: string;
  readonly to: string;
}

const MOST_BY_CHANCE = 5_000;
/** More values in one column would not be looked through by anybody. */
const MOST_TAKEN_OVER = 30;

/** Makes rows of the columns' values, combined or by chance, after a look at what they would show; doubles are left out. */
export function MakeRows({ rows, parameters, checks, gained, estimate, onAdd, onClose }: Props) {
  const [how, setHow] = useState<How>('combined');
  const [columns, setColumns] = useState<readonly Column[]>(() => parameters.map((parameter) => columnOf(parameter, rows, checks.get(parameter.id), checks.size > 0)));
  const [strength, setStrength] = useState<Strength>('pairs');
  const [constraints, setConstraints] = useState('');
  const [seed, setSeed] = useState(1);
  const [count, setCount] = useState(10);
  const chosen = useMemo(() => columns.filter((c) => c.on), [columns]);
  const asked = useMemo(() => ({ how, chosen, strength, constraints, seed, count, rows }), [chosen, constraints, count, how, rows, seed, strength]);
  const answer = useBeside(asked, make);
  const made = answer?.input === asked ? answer.output : undefined;
  const fresh = made?.kind === 'made' ? made.rows : [];
  const room = LIMITS.rows - rows.length;
  const set = (id: ParameterId, part: Partial<Column>): void => setColumns((now) => now.map((c) => (c.parameter.id === id ? { ...c, ...part } : c)));
  return (
    <Dialog title="Generate rows" onClose={onClose} wide>
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <Choose label="Made of" showLabel value={how} options={options(HOW)} onChange={setHow} />
        {how === 'combined' ? (
          <Choose label="Combined" showLabel value={strength} options={options(STRENGTH_WORD)} onChange={setStrength} />
        ) : (
          <label className="flex items-center gap-1.5">
            how many <NumberBox min={1} max={MOST_BY_CHANCE} value={count} onChange={(number) => number !== null && setCount(number)} className="w-20" />
          </label>
        )}
        <label title="The same seed makes the same rows again" className="flex items-center gap-1.5">
          seed <NumberBox min={0} max={1_000_000_000} value={seed} onChange={(number) => number !== null && setSeed(number)} className="w-20" />
        </label>
      </div>
      <Columns columns={columns} how={how} onSet={set} />
      {how === 'combined' && (
        <Labelled label="what may not go together, a line each, as in: if Consent = no then not (Channel = SMS)" pale className="mt-2 text-sm">
          <TextArea aria-label="Constraints" rows={2} value={constraints} onChange={setConstraints} className="w-full font-mono text-xs" />
        </Labelled>
      )}
      <p role="status" className="mt-2 text-sm">
        {wordsOf(made, chosen.length)}
      </p>
      {fresh.length > 0 && <MadeRows rows={fresh} columns={chosen.map((c) => c.parameter)} gained={gained} estimate={estimate} />}
      {fresh.length > room && <p className="mt-1 text-sm text-brick">A table may have {LIMITS.rows.toLocaleString(locale())} rows; there is room for {room.toLocaleString(locale())} more. Nothing is added; make fewer.</p>}
      <div className="mt-4 flex gap-3">
        <Button
          look="accent"
          disabled={fresh.length === 0 || fresh.length > room}
          onClick={() => {
            onAdd(fresh);
            onClose();
          }}
        >
          Add {countOf(fresh.length, 'row')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

interface Asked {
  readonly how: How;
  readonly chosen: readonly Column[];
  readonly strength: Strength;
  readonly constraints: string;
  readonly seed: number;
  readonly count: number;
  readonly rows: readonly Row[];
}

async function make({ how, chosen, strength, constraints, seed, count, rows }: Asked): Promise<CombinedRows | RandomRows | null> {
  if (chosen.length === 0) return null;
  if (how === 'byChance') return worker().byChance(chosen.map(({ parameter, values, from, to }): RandomColumn => ({ parameter, values: typedList(values), from, to })), count, seed, rows);
  return worker().combine({ columns: chosen.map(({ parameter, values }): CombinedColumn => ({ parameter, values: typedList(values) })), strength, constraints, seed }, rows);
}

function columnOf(parameter: Parameter, rows: readonly Row[], check: ColumnCheck | undefined, isServed: boolean): Column {
  const there = [...new Set(rows.flatMap((r) => r.cells[parameter.id] ?? []))];
  const values = check !== undefined ? check.values.filter((v) => check.problem(v) === null) : parameter.type === 'yesNo' ? ['yes', 'no'] : there;
  return { parameter, on: isServed ? check !== undefined : there.length > 0, values: values.slice(0, MOST_TAKEN_OVER).map((v) => (/[,\n]/.test(v) ? v.replaceAll(/[,\n]/g, ' ') : v)).join(', '), from: '', to: '' };
}

function Columns({ columns, how, onSet }: { readonly columns: readonly Column[]; readonly how: How; readonly onSet: (id: ParameterId, part: Partial<Column>) => void }) {
  if (columns.length === 0) return <p className="mt-3 text-sm text-ink2">There are no columns yet. Declare a parameter first.</p>;
  return (
    <table className="mt-3 w-full text-sm">
      <thead>
        <tr className="border-b border-ink2 text-left text-xs text-ink2">
          <th className="w-8 py-1 font-medium" aria-label="taken" />
          <th className="w-1/5 font-medium">column</th>
          <th className="font-medium">{how === 'combined' ? 'its values, parted by commas' : 'one of these, parted by commas'}</th>
          {how === 'byChance' && <th className="w-1/3 font-medium">or any from – to</th>}
        </tr>
      </thead>
      <tbody>
        {columns.map(({ parameter, on, values, from, to }, i) => (
          <tr key={parameter.id} className="border-b border-rule">
            <td>
              <label className="grid size-7 place-items-center">
                <input type="checkbox" data-first={(i === 0 && !on) || undefined} aria-label={`Take ${parameter.name}`} checked={on} onChange={(e) => onSet(parameter.id, { on: e.target.checked })} />
              </label>
            </td>
            <td>
              <span className="cad-parameter">{`<${parameter.name}>`}</span>
            </td>
            <td className="py-1 pr-2">
              <TextBox data-first={(i === 0 && on) || undefined} aria-label={`Values of ${parameter.name}`} disabled={!on} value={values} onChange={(text) => onSet(parameter.id, { values: text })} className="w-full font-mono text-xs disabled:opacity-60" />
            </td>
            {how === 'byChance' && (
              <td className="whitespace-nowrap">
                {typedList(values).length > 0 || parameter.type === 'yesNo' ? (
                  <span className="text-xs text-ink2">{PARAMETER_TYPE_WORD[parameter.type]}; empty the list for any</span>
                ) : (
                  <span className="flex items-center gap-1.5">
                    <TextBox aria-label={`${parameter.name} from`} placeholder={parameter.type === 'text' ? 'letters' : 'from'} disabled={!on} value={from} onChange={(text) => onSet(parameter.id, { from: text })} className="w-24 font-mono text-xs" />–
                    <TextBox aria-label={`${parameter.name} to`} placeholder={parameter.type === 'text' ? 'letters' : 'to'} disabled={!on} value={to} onChange={(text) => onSet(parameter.id, { to: text })} className="w-24 font-mono text-xs" />
                  </span>
                )}
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function wordsOf(made: CombinedRows | RandomRows | null | undefined, columns: number): string {
  if (columns === 0) return 'Choose at least one column.';
  if (made === undefined || made === null) return 'Making …';
  switch (made.kind) {
    case 'made':
      if ('combinations' in made) return `${countOf(made.combinations, 'combination')} of values, ${made.shownBefore.toLocaleString(locale())} in rows that are there; ${countOf(made.rows.length, 'row')} would show the rest.`;
      return `${countOf(made.rows.length, 'row')}, none like another.`;
    case 'tooMany':
      return `${made.combinations.toLocaleString(locale())} combinations are more than the ${made.most.toLocaleString(locale())} that can be made. Combine less, or fewer columns.`;
    case 'problems':
      return made.problems.map((p) => (p.code === 'constraint_misread' ? constraintProblemSentence(p.problem) : combinationProblemSentence(p, made.model))).join(' ');
    case 'badBounds':
      return `The bounds of <${made.column}> are no values of its type, or the first is above the second.`;
  }
}
