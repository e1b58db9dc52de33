export { CodeField } from './CodeField.tsx';
