// A worker thread starts without the TypeScript loader of its parent, so it registers one before its code is read. Tests
// have that code in one piece.
const bundled = process.env.CADERNO_THREADS;
if (bundled === undefined) (await import('tsx/esm/api')).register();
await import(bundled === undefined ? './keeper.worker.ts' : `${bundled}/keeper.worker.mjs`);
