export { Postbox, type TakenMail } from './postbox.ts';
export { createPostboxPage } from './page.ts';
