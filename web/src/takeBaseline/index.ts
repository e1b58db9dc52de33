export { TakeBaseline } from './TakeBaseline.tsx';
