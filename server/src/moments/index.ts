export { isMomentToBeMade, makeAtRevision, momentProject, openMoment, sweepMoments } from './openMoment.ts';
