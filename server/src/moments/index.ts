export { isMomentToBeMade, makeAtRevision, momentProject, openMoment, sweepMoments } from './openMoment.ts';
export { isPartToBeMade, openPart } from './openPart.ts';
