export { SUSPECT_SQL, countSuspectLinks, createProject, readModules, readProject } from './projects.ts';
export { readSettings, type StoredSettings } from './settings.ts';
export { PAGES_CHANNEL, tellPages, type PageNews } from './tellPages.ts';
