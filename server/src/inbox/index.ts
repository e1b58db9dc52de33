export { deliver, deliverIn } from './deliver.ts';
export { follow, followersSql, readFollowing, type Reader } from './follow.ts';
export { mailInbox, putGivenUp } from './mailed.ts';
export { put } from './put.ts';
export { countInbox, markInbox, readChoices, readInbox, saveChoices } from './read.ts';
