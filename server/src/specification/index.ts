export { readSpecification } from './readSpecification.ts';
