export { Changes } from './Changes.tsx';
