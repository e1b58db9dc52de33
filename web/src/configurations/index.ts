export { MakeConfigurations } from './MakeConfigurations.tsx';
