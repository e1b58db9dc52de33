import { fieldId, type CombinationModel, type Factor, type FactorValue } from '@caderno/core/conditions';
import { newPartId } from '../newPartId.ts';

/** Edits of a combination model; each answers the model after it. */
type Edit = (model: CombinationModel) => CombinationModel;

export function newFactorValue(value: string): FactorValue {
  return { id: newPartId(), value, aliases: [], valid: true, base: false, outcome: '' };
}

function newFactor(name: string): Factor {
  return { id: fieldId(newPartId()), name, values: ['one', 'other'].map(newFactorValue) };
}

export function newCombination(): CombinationModel {
  return { kind: 'combination', factors: [newFactor('first factor'), newFactor('second factor')], constraints: [], strength: 'pairs', groups: [], seed: 1 };
}

export const addFactor: Edit = (model) => ({ ...model, factors: [...model.factors, newFactor(`factor ${model.factors.length + 1}`)] });

export function withFactor(id: string, change: (factor: Factor) => Factor): Edit {
  return (model) => ({ ...model, factors: model.factors.map((f) => (f.id === id ? change(f) : f)) });
}

/** Without a factor; groups lose it, constraints that name it are left to be mended. */
export function withoutFactor(id: string): Edit {
  return (model) => ({ ...model, factors: model.factors.filter((f) => f.id !== id), groups: model.groups.map((g) => ({ ...g, factors: g.factors.filter((f) => f !== id) })).filter((g) => g.factors.length > 1) });
}

export function withValue(factor: string, value: string, part: Partial<FactorValue>): Edit {
  return withFactor(factor, (f) => ({ ...f, values: f.values.map((v) => (v.id === value ? { ...v, ...part } : v)) }));
}

/** Base choice varies from one value of each factor. */
export function makeBase(factor: string, value: string): Edit {
  return withFactor(factor, (f) => ({ ...f, values: f.values.map((v) => ({ ...v, base: v.id === value })) }));
}

export function withConstraint(id: string, text: string): Edit {
  return (model) => ({ ...model, constraints: model.constraints.map((c) => (c.id === id ? { ...c, text } : c)) });
}

export function withoutConstraint(id: string): Edit {
  return (model) => ({ ...model, constraints: model.constraints.filter((c) => c.id !== id) });
}

export const addConstraint: Edit = (model) => ({ ...model, constraints: [...model.constraints, { id: newPartId(), text: '' }] });

/** Chosen factors that are combined `size` at a time; fewer than two make no group. */
export function setGroup(factors: readonly string[], size: number): Edit {
  return (model) => {
    const chosen = model.factors.filter((f) => factors.includes(f.id)).map((f) => f.id);
    return { ...model, groups: chosen.length < 2 ? [] : [{ id: model.groups[0]?.id ?? newPartId(), factors: chosen, size: Math.min(size, chosen.length) }] };
  };
}
