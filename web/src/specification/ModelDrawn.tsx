import { eventWords, liveTransitions, stateName, type CombinationModel, type Model, type StateTransitionsModel } from '@caderno/core/conditions';
import { STATE_LEVEL_WORD, STRENGTH_WORD } from '../look/index.ts';
import { ArrowHead, MOST_LABELLED, NumberLine, PrintedTable, StateBoxDrawn, StateLine, labelLines, type StandingItem, type StateDrawing } from '../models/index.ts';

interface Props {
  readonly model: Model;
  readonly name: string;
  readonly items: readonly StandingItem[];
  /** Of states: where they lie; absent where they could not be laid out. */
  readonly drawing: StateDrawing | undefined;
}

/** A model as it is drawn and read on paper. */
export function ModelDrawn({ model, name, items, drawing }: Props) {
  switch (model.kind) {
    case 'plain':
      return null;
    case 'valueRanges':
      return model.fields.map((field) => (
        <div key={field.id} className="spec-whole mt-2">
          <p className="text-sm font-semibold">{field.name}</p>
          <NumberLine field={field} items={items} />
        </div>
      ));
    case 'decisionTable':
      return <PrintedTable model={model} standingOf={() => null} />;
    case 'stateTransitions':
      return <States model={model} name={name} drawing={drawing} />;
    case 'combination':
      return <Factors model={model} />;
  }
}

function States({ model, name, drawing }: { readonly model: StateTransitionsModel } & Pick<Props, 'name' | 'drawing'>) {
  const transitions = new Map(liveTransitions(model).map((t) => [t.id, t]));
  return (
    <>
      <p className="mt-2 text-xs text-ink2">
        To show: {STATE_LEVEL_WORD[model.level]}
        {model.invalidPairs && ', and that other events are refused'}
      </p>
      {drawing !== undefined && (
        <svg viewBox={`0 0 ${drawing.width} ${drawing.height}`} style={{ width: '100%', maxWidth: drawing.width, maxHeight: '150mm' }} className="spec-whole mx-auto mt-2 block" role="img" aria-label={`State diagram of ${name}`}>
          <ArrowHead />
          {drawing.lines.map((line) => {
            const transition = transitions.get(line.id);
            return transition === undefined ? null : <StateLine key={line.id} line={line} words={eventWords(model, transition)} lines={drawing.lines.length <= MOST_LABELLED ? labelLines(model, transition) : []} standing={null} marked={false} />;
          })}
          {drawing.states.map((box) => {
            const state = model.states.find((s) => s.id === box.id);
            return state === undefined ? null : <StateBoxDrawn key={box.id} box={box} name={state.name} initial={state.initial} final={state.final} standing={null} />;
          })}
        </svg>
      )}
      <table className="mt-2 w-full text-xs" aria-label={`Transitions of ${name}`}>
        <thead>
          <tr className="border-b border-ink text-left text-ink2">
            {['from', 'event', 'to', 'what is done'].map((column) => (
              <th key={column} scope="col" className="py-0.5 pr-3 font-normal">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...transitions.values()].map((t) => (
            <tr key={t.id} className="border-b border-rule align-top">
              <td className="py-0.5 pr-3">{stateName(model, t.from)}</td>
              <td className="py-0.5 pr-3">{eventWords(model, t)}</td>
              <td className="py-0.5 pr-3">{stateName(model, t.to)}</td>
              <td className="py-0.5">{t.action}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Factors({ model: { factors, constraints, strength } }: { readonly model: CombinationModel }) {
  return (
    <>
      <table className="mt-2 w-full text-xs" aria-label="Factors">
        <tbody>
          {factors.map((factor) => (
            <tr key={factor.id} className="border-b border-rule align-top">
              <th scope="row" className="w-40 py-0.5 pr-3 text-left font-semibold">{factor.name}</th>
              <td className="py-0.5">{factor.values.map((v) => `${v.value}${v.valid ? '' : ' (invalid)'}`).join(' · ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs text-ink2">Combined: {STRENGTH_WORD[strength]}</p>
      {constraints.map((constraint) => (
        <p key={constraint.id} className="font-mono text-xs">
          {constraint.text}
        </p>
      ))}
    </>
  );
}
