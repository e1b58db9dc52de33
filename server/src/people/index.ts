export { SESSION_COOKIE, SESSION_DAYS, SESSIONS_CHANNEL, endSession, endSessionById, endSessionsOf, hashToken, listSessions, personOfSession, startSession, type DemoSignIn, type SignedIn } from './session.ts';
export { signIn } from './signIn.ts';
export { createDemoPerson, hasAccounts } from './accounts.ts';
export { addMember, changeRole, describeSession, joinMember, joinProject, listMembers, mayMakeProjects, removeMember, roleIn, type Membership } from './members.ts';
export { changeAccount, listAccounts } from './administration.ts';
export { changePassword, makeResetLink, resetPassword } from './newPassword.ts';
export { listPersonEvents, notePersonEvent } from './events.ts';
export { makeSetUpWord, setUp } from './setUp.ts';
export { accessOfToken, isAccessToken, listTokens, makeToken, withdrawToken, type TokenAccess } from './accessTokens.ts';
