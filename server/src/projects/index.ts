export { createProject, readProject } from './projects.ts';
