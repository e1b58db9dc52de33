import { ruleKey, type DecisionTableModel, type TableProblem } from '@caderno/core/conditions';
import type { ItemCoverage, Standing } from '@caderno/core/coverage';
import { useMemo, useState } from 'react';
import { tellFailure } from '../../api/index.ts';
import { Button, TextButton, countOf } from '../../look/index.ts';
import { useBeside } from '../../worker/index.ts';
import { checkTable } from '../checking/modelCheck.ts';
import { SmallerTableDialog } from './SmallerTableDialog.tsx';
import { TableGrid, type GridPlace } from './TableGrid.tsx';
import { addAction, addCondition, addMissing, addRule } from './tableEdits.ts';
import { isGrave, rulesConcerned, tableProblemSentence } from './tableProblemSentence.ts';
import { saveTableAsCsv } from './tableFile.ts';

interface Props {
  readonly name: string;
  readonly model: DecisionTableModel;
  readonly items: readonly ItemCoverage[];
  readonly canEdit: boolean;
  readonly onChange: (change: (model: DecisionTableModel) => DecisionTableModel) => void;
}

const NO_PROBLEMS: readonly TableProblem[] = [];

/** A decision table to be read and typed in; what is wrong with it stands below and at the rule. */
export function TableEditor({ name, model, items, canEdit, onChange }: Props) {
  const judged = useBeside(model, checkTable);
  const problems = judged?.output ?? NO_PROBLEMS;
  const gravityOf = useMemo(() => gravities(problems), [problems]);
  const standings = useMemo(() => new Map<string, Standing>(items.map((i) => [i.item.key, i.standing])), [items]);
  const [smaller, setSmaller] = useState(false);
  const [place, setPlace] = useState<GridPlace>({ row: 0, column: 0, turn: 0 });
  const missing = missingIn(problems);
  const fillMissing = async (): Promise<void> => {
    if (model.rules.length === 0) return onChange(addRule(-1, undefined));
    // Whoever types quickly is ahead of what is judged beside the page: what is missing is that of the table as it is.
    const now = missingIn(judged?.input === model ? problems : await checkTable(model));
    if (now !== undefined) onChange((m) => (m.rules === model.rules && m.conditions === model.conditions ? addMissing(now.boxes)(m) : m));
  };
  return (
    <div className="mt-4">
      <TableGrid
        model={model}
        canEdit={canEdit}
        place={place}
        onPlace={setPlace}
        standingOf={(rule) => standings.get(ruleKey(rule)) ?? null}
        gravityOf={gravityOf}
        onChange={onChange}
        onMissing={() => void fillMissing().catch(tellFailure)}
      />
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-xs">
        {canEdit && (
          <>
            <TextButton onClick={() => onChange(addCondition)}>add a condition</TextButton>
            <TextButton onClick={() => onChange(addAction)}>add an action</TextButton>
            <TextButton onClick={() => onChange(addRule(model.rules.length - 1, undefined))}>add a rule</TextButton>
            <TextButton onClick={() => setSmaller(true)} disabled={model.rules.length < 2}>
              the smallest table that does the same
            </TextButton>
          </>
        )}
        <TextButton onClick={() => saveTableAsCsv(name, model)}>save as CSV</TextButton>
        {missing !== undefined && canEdit && (
          <Button className="ml-auto" onClick={() => void fillMissing().catch(tellFailure)}>
            Add what is missing <kbd className="font-mono text-xs font-normal text-ink2">Alt M</kbd>
          </Button>
        )}
      </div>
      {judged === null ? <p className="mt-2 text-sm text-ink2">Judging the table …</p> : <Problems problems={problems} model={judged.input} onGo={(rule) => setPlace((p) => ({ row: 0, column: model.rules.findIndex((r) => r.id === rule), turn: p.turn + 1 }))} />}
      {canEdit && (
        <p data-screen-only className="mt-2 text-xs text-ink2">
          In an entry: the first letter of a value, <Key>–</Key> for any, <Key>+</Key> for this or the next. <Key>Enter</Key> writes an action, <Key>x</Key> in the last line makes a rule impossible, <Key>Ctrl D</Key> copies a rule, <Key>Ctrl ⌫</Key> removes it, <Key>Alt ← →</Key> moves it. Tables are copied from and pasted into spreadsheets.
        </p>
      )}
      {smaller && <SmallerTableDialog model={model} onClose={() => setSmaller(false)} onTake={(rules) => onChange((m) => ({ ...m, rules }))} />}
    </div>
  );
}

function missingIn(problems: readonly TableProblem[]): Extract<TableProblem, { code: 'combinations_missing' }> | undefined {
  return problems.find((p) => p.code === 'combinations_missing');
}

function Key({ children }: { readonly children: string }) {
  return <kbd className="whitespace-nowrap rounded border border-rule2 bg-page2 px-1 font-mono">{children}</kbd>;
}

function gravities(problems: readonly TableProblem[]): (rule: string) => 'grave' | 'hint' | null {
  const grave = new Set(problems.filter(isGrave).flatMap(rulesConcerned));
  const hints = new Set(problems.flatMap(rulesConcerned));
  return (rule) => (grave.has(rule) ? 'grave' : hints.has(rule) ? 'hint' : null);
}

const MOST_LINES = 8;

function Problems({ problems, model, onGo }: { readonly problems: readonly TableProblem[]; readonly model: DecisionTableModel; readonly onGo: (rule: string) => void }) {
  return (
    <>
      {!problems.some(isGrave) && <p className="mt-2 text-sm text-pine">Every combination is in a rule, and no two rules contradict each other.</p>}
      <div role="status">
        <ul className="mt-2 space-y-0.5 text-sm" aria-label="What is wrong with the table">
          {problems.slice(0, MOST_LINES).map((problem) => {
            const [rule] = rulesConcerned(problem);
            return (
              <li key={`${problem.code} ${tableProblemSentence(problem, model)}`} className={isGrave(problem) ? 'text-brick' : 'text-ochre-ink'}>
                {tableProblemSentence(problem, model)}{' '}
                {rule !== undefined && (
                  <TextButton className="text-xs" onClick={() => onGo(rule)}>
                    go there
                  </TextButton>
                )}
              </li>
            );
          })}
          {problems.length > MOST_LINES && <li className="text-ink2">and {countOf(problems.length - MOST_LINES, 'more', 'more')}</li>}
        </ul>
      </div>
    </>
  );
}
