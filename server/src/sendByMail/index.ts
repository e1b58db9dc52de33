export { sendByMail } from './sendByMail.ts';
