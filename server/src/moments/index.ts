export { isMomentToBeMade, openMoment, sweepMoments } from './openMoment.ts';
