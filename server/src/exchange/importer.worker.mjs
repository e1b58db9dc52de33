// A worker thread starts without the TypeScript loader of its parent, so it registers one before its code is read.
import { register } from 'tsx/esm/api';

register();
export const { default: answer } = await import('./importer.worker.ts');
export default answer;
