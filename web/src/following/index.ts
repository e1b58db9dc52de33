export { Follow } from './Follow.tsx';
