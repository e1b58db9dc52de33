export { Jobs, type JobKind } from './jobs.ts';
