// A worker thread starts without the TypeScript loader of its parent, so it registers one before its code is read.
import { register } from 'tsx/esm/api';

register();
await import('./attack.worker.ts');
