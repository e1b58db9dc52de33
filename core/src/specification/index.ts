export { specification, type Specification, type Specified, type SpecifiedArtefact, type SpecifiedRequirement } from './specification.ts';
