import { moveBoundary, type ConditionContent, type Model } from '@caderno/core/conditions';
import type { ItemCoverage } from '@caderno/core/coverage';
import { Suspense, lazy } from 'react';
import { NumberLine } from '../models/index.ts';
import { RangesEditor } from './ranges/RangesEditor.tsx';

const TableEditor = lazy(() => import('./table/TableEditor.tsx').then((m) => ({ default: m.TableEditor })));
const StatesEditor = lazy(() => import('./states/StatesEditor.tsx').then((m) => ({ default: m.StatesEditor })));
const CombinationEditor = lazy(() => import('./combination/CombinationEditor.tsx').then((m) => ({ default: m.CombinationEditor })));

interface Props {
  readonly content: ConditionContent;
  readonly items: readonly ItemCoverage[];
  readonly refused: boolean;
  readonly canEdit: boolean;
  readonly editsRanges: boolean;
  readonly update: (change: (content: ConditionContent) => ConditionContent) => void;
}

/** The model, drawn, and where it is typed. */
export function ModelPart({ content, items, refused, canEdit, editsRanges, update }: Props) {
  const { model, title } = content;
  switch (model.kind) {
    case 'plain':
      return null;
    case 'valueRanges':
      return (
        <>
          {model.fields.map((field) => (
            <NumberLine
              key={field.id}
              field={field}
              items={items}
              {...(canEdit ? { onMove: (lower: string, upper: string, steps: bigint) => editOf('valueRanges', update)((m) => ({ ...m, fields: m.fields.map((f) => (f.id === field.id ? moveBoundary(f, lower, upper, steps) : f)) })) } : {})}
            />
          ))}
          {editsRanges && <RangesEditor model={model} onChange={editOf('valueRanges', update)} />}
        </>
      );
    case 'decisionTable':
      return (
        <Suspense>
          <TableEditor name={title} model={model} items={items} canEdit={canEdit} onChange={editOf('decisionTable', update)} />
        </Suspense>
      );
    case 'stateTransitions':
      return (
        <Suspense>
          <StatesEditor name={title} model={model} items={items} canEdit={canEdit} onChange={editOf('stateTransitions', update)} />
        </Suspense>
      );
    case 'combination':
      return (
        <Suspense>
          <CombinationEditor model={model} items={items} refused={refused} canEdit={canEdit} onChange={editOf('combination', update)} />
        </Suspense>
      );
  }
}

/** An edit of a model of one kind, for a content that may have become one of another in the meantime. */
export function editOf<K extends Model['kind']>(kind: K, update: Props['update']): (change: (model: Extract<Model, { kind: K }>) => Extract<Model, { kind: K }>) => void {
  const isKind = (model: Model): model is Extract<Model, { kind: K }> => model.kind === kind;
  return (change) => update((c) => (isKind(c.model) ? { ...c, model: change(c.model) } : c));
}
