export { MakeConfigurations } from './MakeConfigurations.tsx';
export { useConfigurationName, whereWords } from './whereWords.ts';
