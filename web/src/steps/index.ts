export { Steps } from './Steps.tsx';
export { ParameterField } from './ParameterField.tsx';
export { Parameters } from './Parameters.tsx';
export { newStepId, type StepsEdit } from './stepEdits.ts';
export { useConstants, useOpened, type StepsOpened } from './useOpened.ts';
export type { ParameterContext } from './parameterEditing.ts';
export { DraggableUse, UseDragging } from './UseDragging.tsx';
