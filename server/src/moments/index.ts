export { isMomentToBeMade, momentProject, openMoment, sweepMoments } from './openMoment.ts';
