export { SUSPECT_SQL, createProject, readProject } from './projects.ts';
export { readSettings, type StoredSettings } from './settings.ts';
