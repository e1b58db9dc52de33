// A worker thread starts without the TypeScript loader of its parent, so it registers one before its code is read. Tests
// have that code in one piece.
const bundled = process.env.CADERNO_THREADS;
if (bundled === undefined) (await import('tsx/esm/api')).register();
export const { default: answer } = await import(bundled === undefined ? './trend.worker.ts' : `${bundled}/trend.worker.mjs`);
export default answer;
