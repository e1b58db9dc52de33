import { sequenceKey, stateKey, stateProblems, type StateId, type StateTransitionsModel, type TransitionId } from '@caderno/core/conditions';
import type { ItemCoverage, Standing } from '@caderno/core/coverage';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { goOnInAdded } from '../../focus/index.ts';
import { TextButton, countOf, Tick, IconButton } from '../../look/index.ts';
import { StateDiagram } from './StateDiagram.tsx';
import { TransitionTable } from './TransitionTable.tsx';
import { addState, makeInitial, withState, withoutState } from './stateEdits.ts';
import { stateProblemSentence } from './stateProblemSentence.ts';

interface Props {
  readonly name: string;
  readonly model: StateTransitionsModel;
  readonly items: readonly ItemCoverage[];
  readonly canEdit: boolean;
  readonly onChange: (change: (model: StateTransitionsModel) => StateTransitionsModel) => void;
}

const MOST_STATES = 40;

/** A state model: the diagram, its states, its transitions as a table, and what is wrong with it. */
export function StatesEditor({ name, model, items, canEdit, onChange }: Props) {
  const [all, setAll] = useState(false);
  const [marked, setMarked] = useState<TransitionId | null>(null);
  const problems = useMemo(() => stateProblems(model), [model]);
  const standings = useMemo(() => new Map<string, Standing>(items.map((i) => [i.item.key, i.standing])), [items]);
  const ofState = (id: StateId): Standing | null => standings.get(stateKey(id)) ?? null;
  const ofTransition = (id: TransitionId): Standing | null => standings.get(sequenceKey([id])) ?? null;
  return (
    <div>
      <StateDiagram name={name} model={model} canEdit={canEdit} ofState={ofState} ofTransition={ofTransition} marked={marked} onMark={setMarked} onChange={onChange} />
      {problems.length > 0 && (
        <div role="status">
          <ul aria-label="What is wrong with the states" className="mt-2 space-y-0.5 text-sm text-brick">
            {problems.slice(0, 8).map((p) => (
              <li key={JSON.stringify(p)}>{stateProblemSentence(p, model)}</li>
            ))}
            {problems.length > 8 && <li className="text-ink2">and {countOf(problems.length - 8, 'more', 'more')}</li>}
          </ul>
        </div>
      )}
      <div className="mt-4 text-xs text-ink2">{countOf(model.states.length, 'state')}: where things begin, and where they may end</div>
      <ul aria-label="States" className="mt-1 flex flex-wrap gap-1.5">
        {model.states.slice(0, all ? undefined : MOST_STATES).map((state) => (
          <li key={state.id} className="flex h-8 items-center gap-1.5 rounded-field border border-rule2 pl-2 pr-1 text-xs">
            <input type="radio" aria-label={`${state.name} is the initial state`} title="Things begin here" checked={state.initial} disabled={!canEdit} onChange={() => onChange(makeInitial(state.id))} />
            <input aria-label="Name of the state" value={state.name} readOnly={!canEdit} maxLength={200} size={Math.max(4, Math.min(24, state.name.length))} onChange={(e) => onChange(withState(state.id, { name: e.target.value }))} className="bg-transparent text-sm font-medium outline-none focus:bg-blue-wash" />
            <Tick checked={state.final} disabled={!canEdit} onChange={(ticked) => onChange(withState(state.id, { final: ticked }))} className="text-ink2">
              end
            </Tick>
            {canEdit && (
              <IconButton label={`Remove ${state.name}`} small title="Remove the state and its transitions" onClick={() => onChange(withoutState(state.id))} icon={<X size={12} aria-hidden="true" />} />
            )}
          </li>
        ))}
        {!all && model.states.length > MOST_STATES && (
          <li className="flex items-center pl-1">
            <TextButton className="text-xs" onClick={() => setAll(true)}>
              show all {model.states.length} states
            </TextButton>
          </li>
        )}
        {canEdit && (
          <li className="flex items-center pl-1">
            <TextButton className="text-xs" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange(addState))}>
              add a state
            </TextButton>
          </li>
        )}
      </ul>
      <div className="mt-3">
        <TransitionTable model={model} canEdit={canEdit} standingOf={ofTransition} marked={marked} onMark={setMarked} onChange={onChange} />
      </div>
      {canEdit && <p className="mt-1 text-xs text-ink2">A new name makes a new state or event. Enter goes to the next line, Ctrl ⌫ removes one.</p>}
    </div>
  );
}
