export { answer, beginThread, listRemarks, rewordRemark, settleThread, takeBackRemark, type Speaker } from './remarks.ts';
export { listOpenThreads } from './openThreads.ts';
