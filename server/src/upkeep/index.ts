export { readServerState } from './serverState.ts';
export { carryMails, startMailing } from './mailing.ts';
export { startUpkeep, sweep } from './upkeep.ts';
export { checkData, type DataFault } from './checkData.ts';
