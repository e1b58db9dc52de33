export { ReplacePage } from './ReplacePage.tsx';
