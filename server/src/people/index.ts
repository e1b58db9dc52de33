export { SESSION_COOKIE, SESSION_DAYS, endSession, personOfSession, startSession, type SignedIn } from './session.ts';
export { checkSignIn, noteFailure, refuseTooManyFailures } from './signIn.ts';
export { addMember, createDemoPerson, describeSession, joinProject, listMembers, roleIn, setUp } from './members.ts';
