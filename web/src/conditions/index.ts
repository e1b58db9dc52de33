export { ConditionAddress, ConditionsChapter } from './ConditionsChapter.tsx';
