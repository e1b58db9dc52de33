export { makeHandOff, type HandOffOrder } from './make.ts';
export { previewHandOff, type PreviewHandOff } from './preview.ts';
export { listHandOffs, readHandOff, readStored } from './read.ts';
export { placedNotes, readReturned, type ReadReturned } from './returned.ts';
export { featuresOf, writeHandOff, type WriteHandOff } from './write.ts';
export type { WhichHandOff } from './handed.ts';
