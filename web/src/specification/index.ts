export { SpecificationPage } from './SpecificationPage.tsx';
