export { CodeField } from './CodeField.tsx';
export { offering } from './offering.ts';
