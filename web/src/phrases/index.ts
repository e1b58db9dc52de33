export { useWording } from './useWording.ts';
