export { OpenTicks, Ticks } from './Ticks.tsx';
export { TitleField } from './TitleField.tsx';
export { TextInput } from './TextInput.tsx';
export { Margin, MarginNote } from './Margin.tsx';
export { Loading } from './Loading.tsx';
export { Defects } from './Defects.tsx';
export { useCreate } from './useCreate.ts';
export { useRaiseQuestion } from './useRaiseQuestion.ts';
