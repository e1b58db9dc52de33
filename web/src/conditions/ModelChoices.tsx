import type { ConditionId } from '@caderno/core/artefacts';
import { MODEL_KINDS, coverageItems, type ConditionContent, type Model, type ModelKind } from '@caderno/core/conditions';
import type { ConditionCoverage } from '@caderno/core/coverage';
import { useState } from 'react';
import { Button, BOUNDARY_WORD, Choose, Dialog, MODEL_WORD, POLARITY_WORD, RISK_WORD, STATE_LEVEL_WORD, STRENGTH_WORD, countOf, options } from '../look/index.ts';
import { useFrame } from '../frame/index.ts';
import { useSettings } from '../api/index.ts';
import { editOf } from './ModelPart.tsx';
import { newCombination } from './combination/combinationEdits.ts';
import { newModel } from './ranges/newParts.ts';
import { newStates } from './states/stateEdits.ts';
import { newTable } from './table/tableEdits.ts';

interface Props {
  readonly id: ConditionId;
  readonly content: ConditionContent;
  readonly coverage: ConditionCoverage | undefined;
  readonly canEdit: boolean;
  readonly update: (change: (content: ConditionContent) => ConditionContent) => void;
  readonly onRanges: () => void;
}

/** How the condition is exercised, and how thoroughly. */
export function ModelChoices({ id, content, coverage, canEdit, update, onRanges }: Props) {
  const { model } = content;
  const [wanted, setWanted] = useState<Model | null>(null);
  const take = (next: Model): void => {
    update((c) => ({ ...c, model: next }));
    setWanted(null);
    if (next.kind === 'valueRanges') onRanges();
  };
  const choose = (kind: ModelKind): void => {
    if (kind === model.kind) return;
    const next = firstModel(kind, content);
    if (model.kind === 'plain' && content.leftOut.length === 0 && (coverage?.items ?? []).every((i) => i.instances === 0)) take(next);
    else setWanted(next);
  };
  return (
    <>
      <Choose label="Model" value={model.kind} options={MODEL_KINDS.map((kind) => ({ value: kind, name: MODEL_WORD[kind] }))} onChange={choose} disabled={!canEdit} />
      {model.kind === 'valueRanges' && <Choose label="Boundaries" value={model.boundaries} options={options(BOUNDARY_WORD)} onChange={(boundaries) => editOf('valueRanges', update)((m) => ({ ...m, boundaries }))} disabled={!canEdit} />}
      {model.kind === 'stateTransitions' && (
        <Choose label="Level" value={model.level} options={options(STATE_LEVEL_WORD)} onChange={(level) => editOf('stateTransitions', update)((m) => ({ ...m, level }))} disabled={!canEdit} />
      )}
      {model.kind === 'combination' && <Choose label="Strength" value={model.strength} options={options(STRENGTH_WORD)} onChange={(strength) => editOf('combination', update)((m) => ({ ...m, strength }))} disabled={!canEdit} />}
      {wanted !== null && <TechniqueChange id={id} content={content} next={wanted} coverage={coverage} onTake={() => take(wanted)} onClose={() => setWanted(null)} />}
    </>
  );
}

/** What else is said of a condition in a word, and is rarely changed. */
export function RareChoices({ content, canEdit, update }: Pick<Props, 'content' | 'canEdit' | 'update'>) {
  const risks = [{ value: 'inherit' as const, name: 'Risk of its requirement' }, ...options(RISK_WORD)];
  const { model } = content;
  return (
    <>
      {model.kind === 'stateTransitions' && (
        <Choose
          label="Refused events"
          value={model.invalidPairs ? 'yes' : 'no'}
          options={[
            { value: 'yes', name: 'and every refused event' },
            { value: 'no', name: 'without refused events' },
          ]}
          onChange={(pairs) => editOf('stateTransitions', update)((m) => ({ ...m, invalidPairs: pairs === 'yes' }))}
          disabled={!canEdit}
        />
      )}
      <Choose label="Polarity" value={content.polarity} options={options(POLARITY_WORD)} onChange={(polarity) => update((c) => ({ ...c, polarity }))} disabled={!canEdit} />
      <Choose label="Risk" value={content.risk ?? 'inherit'} options={risks} onChange={(risk) => update((c) => ({ ...c, risk: risk === 'inherit' ? null : risk }))} disabled={!canEdit} />
      <Depths content={content} canEdit={canEdit} update={update} />
    </>
  );
}

/** What of it is not as it usually is, in a few words. */
export function rareWords({ polarity, risk }: ConditionContent): string[] {
  return [...(polarity === 'positive' ? [] : [POLARITY_WORD[polarity]]), ...(risk === null ? [] : [RISK_WORD[risk]])];
}

function firstModel(kind: ModelKind, content: ConditionContent): Model {
  switch (kind) {
    case 'plain':
      return { kind };
    case 'valueRanges':
      return newModel(content.title.toLowerCase().slice(0, 60));
    case 'decisionTable':
      return newTable();
    case 'stateTransitions':
      return newStates();
    case 'combination':
      return newCombination();
  }
}

/** The depths of testing it belongs to: a condition may belong to several. */
function Depths({ content, canEdit, update }: Pick<Props, 'content' | 'canEdit' | 'update'>) {
  const { project } = useFrame();
  const known = useSettings(project).data?.settings.depths ?? [];
  const depths = [...known, ...content.depths.filter((d) => !known.includes(d))];
  const set = (depth: string, on: boolean): void => update((c) => ({ ...c, depths: on ? [...c.depths.filter((d) => d !== depth), depth] : c.depths.filter((d) => d !== depth) }));
  if (depths.length === 0) return null;
  return (
    <fieldset className="flex h-chip items-center gap-2.5 rounded-field border border-rule2 px-2 text-xs text-ink2" disabled={!canEdit}>
      <legend className="sr-only">Depth of testing</legend>
      {depths.map((depth) => (
        <label key={depth} className={`flex min-h-6 items-center gap-1 ${content.depths.includes(depth) ? 'font-medium text-ink' : ''}`}>
          <input type="checkbox" data-on-paper checked={content.depths.includes(depth)} onChange={(e) => set(depth, e.target.checked)} /> {depth}
        </label>
      ))}
    </fieldset>
  );
}

interface ChangeProps {
  readonly id: ConditionId;
  readonly content: ConditionContent;
  readonly next: Model;
  readonly coverage: ConditionCoverage | undefined;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

const MOST_NAMED = 8;

/** What another technique would do: which items go and come, and what becomes of the evidence. Cases keep their links. */
function TechniqueChange({ id, content, next, coverage, onTake, onClose }: ChangeProps) {
  const gone = coverage?.items ?? [];
  const come = coverageItems({ ...content, model: next });
  const shown = gone.filter((i) => i.instances > 0).length;
  const cases = coverage?.cases ?? [];
  return (
    <Dialog title={`From ${MODEL_WORD[content.model.kind]} to ${MODEL_WORD[next.kind]}`} onClose={onClose}>
      <div className="grid grid-cols-2 gap-6 text-sm">
        <Named word="go" names={gone.map((i) => i.item.name)} />
        <Named word="come, to begin with" names={come.map((i) => i.name)} />
      </div>
      <p className="mt-4 text-sm">
        {shown === 0 ? 'Nothing shows the items that go.' : `${countOf(shown, 'item')} of those that go ${shown === 1 ? 'is' : 'are'} shown now; that evidence counts no longer.`}{' '}
        {cases.length > 0 && `${cases.slice(0, 6).join(', ')}${cases.length > 6 ? ' …' : ''} still cover${cases.length === 1 ? 's' : ''} ${id}: their links, steps and data stay, and only what carries the new model is to be said.`}{' '}
        {content.leftOut.length > 0 && `${countOf(content.leftOut.length, 'reason')} for leaving out stay with the items that go, and are there again if the model is taken back.`}
      </p>
      <div className="mt-5 flex gap-2">
        <Button look="accent" onClick={onTake}>
          Change it
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

function Named({ word, names }: { readonly word: string; readonly names: readonly string[] }) {
  return (
    <div>
      <p className="text-xs text-ink2">
        {countOf(names.length, 'item')} {word}
      </p>
      <ul>
        {names.slice(0, MOST_NAMED).map((name, i) => (
          <li key={i} className="truncate border-b border-rule py-0.5">
            {name}
          </li>
        ))}
        {names.length > MOST_NAMED && <li className="py-0.5 text-ink2">and {names.length - MOST_NAMED} more</li>}
      </ul>
    </div>
  );
}
