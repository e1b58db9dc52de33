export { Covers } from './Covers.tsx';
