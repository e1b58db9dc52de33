export { takeOffer } from './takeOffer.ts';
export { answer, beginThread, listRemarks, rewordRemark, settleThread, takeBackRemark, type Speaker } from './remarks.ts';
export { returnRemarks, takeRemarksAlong } from './takenAlong.ts';
export { listOpenThreads } from './openThreads.ts';
