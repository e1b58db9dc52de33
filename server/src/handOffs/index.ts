export { makeHandOff, type HandOffOrder } from './make.ts';
export { findForHandOff } from './members.ts';
export { listHandOffs, readHandOff, readStored } from './read.ts';
export { readReturned, type ReadReturned } from './returned.ts';
export { featuresOf, writeHandOff, type WriteHandOff } from './write.ts';
