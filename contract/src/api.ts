import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { z } from 'zod';
import { attachmentSchema, summarySchema } from './kinds/index.ts';
import { artefactSchema, brokenArtefactSchema, changeSchema, draftKeptSchema, draftSchema, dropDraftQuerySchema, newArtefactSchema, placeSchema, restoreSchema, saveSchema, stateSchema, reviewedVersionSchema, versionWithContentSchema, writeSchema, writtenSchema } from './artefacts.ts';
import { agendaQuerySchema, basisTextsSchema, mergeSchema, settleSchema, splitSchema, suspectLinkSchema } from './basis.ts';
import { bytesBody, fileResponse } from './bytes.ts';
import { alikeSchema, foundRunsSchema, libraryQuerySchema, librarySchema, renameSchema, renamedSchema, reuseGraphSchema, reuseSchema, runsQuerySchema, takeOutSchema } from './shared.ts';
import { conditionLineSchema, coverageReportSchema, designSchema, itemListSchema, itemQuerySchema, matrixCellsSchema, matrixQuerySchema } from './coverage.ts';
import type { AnyEndpoint } from './endpoint.ts';
import { artefactIdSchema, attachmentIdSchema, caseIdSchema, dataSetIdSchema, conditionIdSchema, featureIdSchema, innerIdSchema, ownFieldIdSchema, requirementIdSchema, suiteIdSchema, versionNumberSchema } from './ids.ts';
import { exportQuerySchema, importDraftSchema, importPreviewSchema, importProgressSchema, importStepSchema, runImportSchema, uploadQuerySchema } from './imports.ts';
import { exportFeaturesSchema, featuresDraftSchema, foundPhrasesSchema, phraseUsesSchema, phrasesSchema, rememberedFeaturesSchema, runFeaturesSchema, writtenTwiceSchema } from './features.ts';
import { alongSchema, askAlongSchema, designDraftSchema, exportDesignSchema, runDesignSchema } from './design.ts';
import { caseDraftSchema, casePreviewSchema, caseStepSchema, exportCasesSchema, runCasesSchema } from './caseFiles.ts';
import { LIMITS } from './limits.ts';
import { changesSinceSchema, coverageSinceSchema, headsPageSchema } from './log.ts';
import { changeManySchema, changedManySchema, findPlacesSchema } from './many.ts';
import { foundPlacesSchema } from './replacing.ts';
import { momentTextSchema } from './moment.ts';
import { madeReadLinkSchema, newReadLinkSchema, readLinkSchema, shownByLinkSchema } from './readLinks.ts';
import { acceptInvitationSchema, accessTokenSchema, accountChangeSchema, accountSchema, changePasswordSchema, forgottenSchema, invitationSchema, invitedSchema, linkWordSchema, newEmailSchema, newInvitationSchema, newNameSchema, openedInvitationSchema, madeAccessTokenSchema, newAccessTokenSchema, outsideHostsSchema, personEventQuerySchema, personEventSchema, resetLinkSchema, resetPasswordSchema, revealSchema, revealedSchema, sessionLineSchema } from './accounts.ts';
import { existingMemberSchema, memberSchema, newMemberSchema, newProjectSchema, projectKeySchema, projectRefSchema, openedMomentSchema, roleSchema, seenModulesSchema, sessionSchema, setUpSchema, signInSchema } from './people.ts';
import { serverStateSchema } from './serverState.ts';
import { projectSettingsSchema, settingsSchema } from './settings.ts';
import { answerSchema, newThreadSchema, openThreadSchema, remarkIdSchema, remarkTextSchema, remarkThreadSchema, settledSchema, takeOfferSchema } from './remarks.ts';
import { specificationQuerySchema, specificationSchema } from './specification.ts';
import { designReportSchema, reportQuerySchema } from './report.ts';
import { answersSchema, askAgainSchema, askedReviewSchema, hangingSchema, newReviewSchema, reviewLineSchema, reviewNumberSchema, reviewSchema, reviewTermsSchema } from './reviews.ts';
import { baselineNumberSchema, baselineSchema, bringBackPlanSchema, bringBackSchema, broughtBackSchema, comparisonQuerySchema, frozenChangesSchema, frozenContentSchema, frozenItemsSchema, newBaselineSchema, sealCheckSchema } from './baselines.ts';
import { askHandOffSchema, exportHandOffQuerySchema, handOffHeadSchema, handOffNumberSchema, handOffPreviewSchema, handOffSchema, newHandOffSchema, returnedSchema } from './handOffs.ts';
import { mailLineSchema, sendByMailSchema } from './mail.ts';
import { followSchema, followingSchema, inboxChoicesSchema, inboxCountSchema, inboxMarksSchema, inboxPageSchema, inboxQuerySchema } from './inbox.ts';
import { additionsSchema, askAdditionsSchema, askedItemsSchema, candidatesSchema, askTouchedSchema, showingMembersSchema, suiteFiguresSchema, suiteLinesSchema, suitesOfSchema, touchedSchema, writtenSuiteSchema } from './suites.ts';
import { textUpTo } from './text.ts';
import { bendsSchema, requirementTrendSchema, revisionSchema, pointSchema, trendLeftSchema, trendSchema } from './trend.ts';
import { listViewSchema, listViewsSchema, saveQuerySchema, savedQuerySchema } from './lists.ts';
import { projectFromFolderSchema } from './designFolder.ts';
import { defectSchema, trackerStateSchema } from './tracker.ts';

const none = z.object({});
const nothing = z.undefined();
const inProject = z.object({ project: projectKeySchema });
const ofQuery = inProject.extend({ query: z.uuid() });
const ofImport = inProject.extend({ import: z.uuid() });
const ofRemark = inProject.extend({ remark: remarkIdSchema });
const ofMail = inProject.extend({ mail: z.uuid() });
const threads = z.array(remarkThreadSchema);
const ofBaseline = inProject.extend({ baseline: baselineNumberSchema });
const ofHandOff = inProject.extend({ handOff: handOffNumberSchema });
const ofReview = inProject.extend({ review: reviewNumberSchema });
const ofArtefact = inProject.extend({ id: artefactIdSchema });

/** Every mutating request may carry it: the same id again is answered with what the first one did. */
export const COMMAND_ID_HEADER = 'Command-Id';

const figures = z.object({
  requirements: z.int(),
  conditions: z.int(),
  cases: z.int(),
  shared: z.int(),
  openQuestions: z.int(),
  suspectLinks: z.int(),
  revision: z.int(),
});

/** The API. Paths are below `/api/v1`; errors are problem details with a {@link Refusal} inside. */
export const api = {
  readSession: { method: 'GET', path: '/session', access: 'anyone', summary: 'Who is signed in, and how one can', params: none, query: none, body: nothing, response: sessionSchema },
  signIn: { method: 'POST', path: '/session', access: 'anyone', summary: 'Sign in', params: none, query: none, body: signInSchema, response: sessionSchema },
  signOut: { method: 'DELETE', path: '/session', access: 'anyone', summary: 'Sign out', params: none, query: none, body: nothing, response: sessionSchema },
  setUp: { method: 'POST', path: '/setup', access: 'anyone', summary: 'Make the first administrator', params: none, query: none, body: setUpSchema, response: sessionSchema },
  createProject: { method: 'POST', path: '/projects', access: 'projectMaker', summary: 'Make a project', params: none, query: none, body: newProjectSchema, response: projectRefSchema },
  createProjectFromFolder: { method: 'POST', path: '/projects/from-folder', access: 'projectMaker', summary: 'Make a project of the zip of a baseline, with its ids and versions', params: none, query: projectFromFolderSchema, body: bytesBody, response: projectRefSchema, most: LIMITS.folder },
  readProject: { method: 'GET', path: '/projects/:project', access: 'reader', token: 'read', summary: 'A project and its figures', params: inProject, query: none, body: nothing, response: projectRefSchema.extend({ figures, modules: z.array(z.string()) }) },
  listMembers: { method: 'GET', path: '/projects/:project/members', access: 'reader', summary: 'The people of a project', params: inProject, query: none, body: nothing, response: z.array(memberSchema) },
  addMember: { method: 'POST', path: '/projects/:project/members', access: 'administrator', summary: 'Make an account and add it to the project', params: inProject, query: none, body: newMemberSchema, response: memberSchema },

  joinMember: { method: 'POST', path: '/projects/:project/members/existing', access: 'administrator', summary: 'Add somebody who has an account to the project', params: inProject, query: none, body: existingMemberSchema, response: memberSchema },
  listInvitations: { method: 'GET', path: '/projects/:project/invitations', access: 'administrator', summary: 'The invitations that wait', params: inProject, query: none, body: nothing, response: z.array(invitationSchema) },
  invite: { method: 'POST', path: '/projects/:project/invitations', access: 'administrator', summary: 'Invite somebody by mail; who has an account is in the project at once', params: inProject, query: none, body: newInvitationSchema, response: invitedSchema },
  withdrawInvitation: { method: 'DELETE', path: '/projects/:project/invitations/:invitation', access: 'administrator', summary: 'Withdraw an invitation', params: inProject.extend({ invitation: z.uuid() }), query: none, body: nothing, response: z.array(invitationSchema) },
  listReadLinks: { method: 'GET', path: '/projects/:project/read-links', access: 'analyst', summary: 'The links by which people without an account read something', params: inProject, query: none, body: nothing, response: z.array(readLinkSchema) },
  makeReadLink: { method: 'POST', path: '/projects/:project/read-links', access: 'analyst', summary: 'Give a link to read one artefact', params: inProject, query: none, body: newReadLinkSchema, response: madeReadLinkSchema },
  endReadLink: { method: 'DELETE', path: '/projects/:project/read-links/:link', access: 'analyst', summary: 'End a link to read', params: inProject.extend({ link: z.uuid() }), query: none, body: nothing, response: z.array(readLinkSchema) },
  changeRole: { method: 'PUT', path: '/projects/:project/members/:person', access: 'administrator', summary: 'Change somebody’s role in the project', params: inProject.extend({ person: z.uuid() }), query: none, body: roleSchema, response: memberSchema },
  changeSeenModules: { method: 'PUT', path: '/projects/:project/members/:person/sees', access: 'administrator', summary: 'Say which modules a reader sees, or that it is everything', params: inProject.extend({ person: z.uuid() }), query: none, body: seenModulesSchema, response: memberSchema },
  removeMember: { method: 'DELETE', path: '/projects/:project/members/:person', access: 'administrator', summary: 'Remove somebody from the project', params: inProject.extend({ person: z.uuid() }), query: none, body: nothing, response: z.array(memberSchema) },
  listMemberEvents: { method: 'GET', path: '/projects/:project/members/journal', access: 'lead', summary: 'The journal of the project’s people, newest first', params: inProject, query: personEventQuerySchema, body: nothing, response: z.array(personEventSchema) },
  revealConstant: { method: 'POST', path: '/projects/:project/constants/:constant/reveal', access: 'lead', summary: 'The value of a secret constant; noted in the journal of people', params: inProject.extend({ constant: innerIdSchema }), query: none, body: revealSchema, response: revealedSchema },

  listSessions: { method: 'GET', path: '/account/sessions', access: 'signedIn', summary: 'One’s own sessions', params: none, query: none, body: nothing, response: z.array(sessionLineSchema) },
  endSession: { method: 'DELETE', path: '/account/sessions/:session', access: 'signedIn', summary: 'End one of one’s own sessions', params: z.object({ session: z.uuid() }), query: none, body: nothing, response: z.array(sessionLineSchema) },
  listTokens: { method: 'GET', path: '/account/tokens', access: 'signedIn', summary: 'One’s own access tokens', params: none, query: none, body: nothing, response: z.array(accessTokenSchema) },
  makeToken: { method: 'POST', path: '/account/tokens', access: 'signedIn', summary: 'Make an access token for a program; it is told this once', params: none, query: none, body: newAccessTokenSchema, response: madeAccessTokenSchema },
  withdrawToken: { method: 'DELETE', path: '/account/tokens/:token', access: 'signedIn', summary: 'Withdraw one of one’s own access tokens', params: z.object({ token: z.uuid() }), query: none, body: nothing, response: z.array(accessTokenSchema) },
  changePassword: { method: 'POST', path: '/account/password', access: 'signedIn', summary: 'Change one’s password; other sessions end', params: none, query: none, body: changePasswordSchema, response: sessionSchema },
  changeName: { method: 'POST', path: '/account/name', access: 'signedIn', summary: 'Be called otherwise, also where one is the owner of something', params: none, query: none, body: newNameSchema, response: sessionSchema },
  changeEmail: { method: 'POST', path: '/account/email', access: 'signedIn', summary: 'Ask for another e-mail address; a link is mailed to it', params: none, query: none, body: newEmailSchema, response: none },
  confirmEmail: { method: 'POST', path: '/new-address', access: 'anyone', summary: 'Take the e-mail address that a link was mailed to', params: none, query: none, body: linkWordSchema, response: sessionSchema },
  forgetPassword: { method: 'POST', path: '/forgotten', access: 'anyone', summary: 'Have a link for a new password mailed, if there is such an account', params: none, query: none, body: forgottenSchema, response: none },
  openInvitation: { method: 'POST', path: '/invited/opened', access: 'anyone', reads: true, summary: 'What an invitation is to', params: none, query: none, body: linkWordSchema, response: openedInvitationSchema },
  openReadLink: { method: 'POST', path: '/shown', access: 'anyone', summary: 'What a link to read shows', params: none, query: none, body: linkWordSchema, response: shownByLinkSchema },
  acceptInvitation: { method: 'POST', path: '/invited', access: 'anyone', summary: 'Take up an invitation with a new account', params: none, query: none, body: acceptInvitationSchema, response: sessionSchema },
  resetPassword: { method: 'POST', path: '/reset', access: 'anyone', summary: 'Set a new password by a one-time link', params: none, query: none, body: resetPasswordSchema, response: sessionSchema },
  listAccounts: { method: 'GET', path: '/people', access: 'installationAdministrator', summary: 'All accounts of the server', params: none, query: none, body: nothing, response: z.array(accountSchema) },
  listPersonEvents: { method: 'GET', path: '/people/journal', access: 'installationAdministrator', summary: 'The journal of people, newest first', params: none, query: personEventQuerySchema, body: nothing, response: z.array(personEventSchema) },
  readServerState: { method: 'GET', path: '/server', access: 'installationAdministrator', summary: 'How the server and its database stand', params: none, query: none, body: nothing, response: serverStateSchema },
  changeAccount: { method: 'PUT', path: '/people/:person', access: 'installationAdministrator', summary: 'Deactivate an account or bring it back; make or unmake an administrator', params: z.object({ person: z.uuid() }), query: none, body: accountChangeSchema, response: accountSchema },
  makeResetLink: { method: 'POST', path: '/people/:person/reset-link', access: 'installationAdministrator', summary: 'A one-time link by which somebody sets a new password', params: z.object({ person: z.uuid() }), query: none, body: none, response: resetLinkSchema },
  sendTrialMail: { method: 'POST', path: '/server/trial-mail', access: 'installationAdministrator', summary: 'Send a mail to oneself at once, to see whether it arrives', params: none, query: none, body: none, response: none },
  readOutsideHosts: { method: 'GET', path: '/outside-hosts', access: 'installationAdministrator', summary: 'Hosts that story trackers may have', params: none, query: none, body: nothing, response: outsideHostsSchema },
  saveOutsideHosts: { method: 'PUT', path: '/outside-hosts', access: 'installationAdministrator', summary: 'Say which hosts story trackers may have', params: none, query: none, body: outsideHostsSchema, response: outsideHostsSchema },

  readSettings: { method: 'GET', path: '/projects/:project/settings', access: 'reader', summary: 'What the project sets for itself', params: inProject, query: none, body: nothing, response: settingsSchema },
  saveSettings: { method: 'PUT', path: '/projects/:project/settings', access: 'analyst', summary: 'Save settings; If-Match names the version they start from', params: inProject, query: none, body: projectSettingsSchema, response: settingsSchema, most: LIMITS.lists },

  listSavedQueries: { method: 'GET', path: '/projects/:project/queries', access: 'reader', summary: 'The queries that are kept: one’s own and the project’s', params: inProject, query: none, body: nothing, response: z.array(savedQuerySchema) },
  saveQuery: { method: 'PUT', path: '/projects/:project/queries/:query', access: 'reader', summary: 'Keep a query, for oneself or for everybody', params: ofQuery, query: none, body: saveQuerySchema, response: z.array(savedQuerySchema) },
  removeQuery: { method: 'DELETE', path: '/projects/:project/queries/:query', access: 'reader', summary: 'Remove a query that is kept', params: ofQuery, query: none, body: nothing, response: z.array(savedQuerySchema) },
  readListViews: { method: 'GET', path: '/account/lists', access: 'signedIn', summary: 'How one wants to see lists', params: none, query: none, body: nothing, response: listViewsSchema },
  saveListView: { method: 'PUT', path: '/account/lists/:kind', access: 'signedIn', summary: 'Say how one wants to see lists of a kind', params: z.object({ kind: z.enum(ARTEFACT_KINDS) }), query: none, body: listViewSchema, response: listViewsSchema },

  listRemarks: { method: 'GET', path: '/projects/:project/artefacts/:id/remarks', access: 'reader', summary: 'What is said of an artefact and at places in it', params: ofArtefact, query: none, body: nothing, response: threads },
  beginThread: { method: 'POST', path: '/projects/:project/artefacts/:id/remarks', access: 'reader', summary: 'Say something of an artefact, or at a place in it', params: ofArtefact, query: none, body: newThreadSchema, response: threads },
  answerRemark: { method: 'POST', path: '/projects/:project/remarks/:remark/answers', access: 'reader', summary: 'Answer a remark; a settled thread is open again', params: ofRemark, query: none, body: answerSchema, response: threads },
  rewordRemark: { method: 'PUT', path: '/projects/:project/remarks/:remark', access: 'reader', summary: 'Say one’s own remark otherwise', params: ofRemark, query: none, body: remarkTextSchema, response: threads },
  takeBackRemark: { method: 'DELETE', path: '/projects/:project/remarks/:remark', access: 'reader', summary: 'Take a remark back: one’s own, or as somebody who leads', params: ofRemark, query: none, body: nothing, response: threads },
  settleThread: { method: 'PUT', path: '/projects/:project/remarks/:remark/settled', access: 'reader', summary: 'Settle a thread, or open it again', params: ofRemark, query: none, body: settledSchema, response: threads },
  takeOffer: { method: 'POST', path: '/projects/:project/remarks/:remark/taken', access: 'analyst', summary: 'Take a change that a remark offers: the next version has it', params: ofRemark, query: none, body: takeOfferSchema, response: threads },
  listOpenThreads: { method: 'GET', path: '/projects/:project/remarks', access: 'reader', summary: 'The open threads of the project, those one is asked in marked', params: inProject, query: none, body: nothing, response: z.array(openThreadSchema) },

  listReviews: { method: 'GET', path: '/projects/:project/reviews', access: 'reader', summary: 'The reviews of the project, the latest first', params: inProject, query: none, body: nothing, response: z.array(reviewLineSchema) },
  readReview: { method: 'GET', path: '/projects/:project/reviews/:review', access: 'reader', summary: 'A review with all that it asks for', params: ofReview, query: none, body: nothing, response: reviewSchema },
  askReview: { method: 'POST', path: '/projects/:project/reviews', access: 'analyst', summary: 'Ask people to agree to artefacts as they are now', params: inProject, query: none, body: newReviewSchema, response: askedReviewSchema },
  changeReview: { method: 'PUT', path: '/projects/:project/reviews/:review', access: 'analyst', summary: 'Say what a review is called, until when it goes and whom it asks', params: ofReview, query: none, body: reviewTermsSchema, response: reviewSchema },
  answerReview: { method: 'POST', path: '/projects/:project/reviews/:review/answers', access: 'reader', summary: 'Agree or object to exact versions', params: ofReview, query: none, body: answersSchema, response: reviewSchema },
  askAgain: { method: 'POST', path: '/projects/:project/reviews/:review/again', access: 'analyst', summary: 'Ask again for what was objected to or taken out, as it is now', params: ofReview, query: none, body: askAgainSchema, response: askedReviewSchema },
  endReview: { method: 'POST', path: '/projects/:project/reviews/:review/end', access: 'analyst', summary: 'End a review: what is not agreed is a draft again', params: ofReview, query: none, body: none, response: reviewSchema },
  readHanging: { method: 'GET', path: '/projects/:project/artefacts/:id/hanging', access: 'reader', summary: 'What hangs on a requirement, or a suite with its members and what they use', params: inProject.extend({ id: z.union([requirementIdSchema, suiteIdSchema]) }), query: none, body: nothing, response: hangingSchema },

  readInbox: { method: 'GET', path: '/projects/:project/inbox', access: 'reader', summary: 'What reached oneself in the project, the latest first', params: inProject, query: inboxQuerySchema, body: nothing, response: inboxPageSchema },
  countInbox: { method: 'GET', path: '/projects/:project/inbox/count', access: 'reader', summary: 'How much of it one has not read', params: inProject, query: none, body: nothing, response: inboxCountSchema },
  markInbox: { method: 'POST', path: '/projects/:project/inbox/marks', access: 'reader', summary: 'Mark some of it as read, or not, or to be kept', params: inProject, query: none, body: inboxMarksSchema, response: inboxCountSchema },
  readInboxChoices: { method: 'GET', path: '/projects/:project/inbox/choices', access: 'reader', summary: 'For what nothing is to reach oneself', params: inProject, query: none, body: nothing, response: inboxChoicesSchema },
  saveInboxChoices: { method: 'PUT', path: '/projects/:project/inbox/choices', access: 'reader', summary: 'Say for what nothing is to reach oneself', params: inProject, query: none, body: inboxChoicesSchema, response: inboxChoicesSchema },
  listMails: { method: 'GET', path: '/projects/:project/mails', access: 'reader', summary: 'The mails one sent from the project, the latest first', params: inProject, query: none, body: nothing, response: z.array(mailLineSchema) },
  sendByMail: { method: 'POST', path: '/projects/:project/mails', access: 'reader', summary: 'Send an artefact or a list by mail, with a note and a link', params: inProject, query: none, body: sendByMailSchema, response: z.array(mailLineSchema) },
  sendMailAgain: { method: 'POST', path: '/projects/:project/mails/:mail/again', access: 'reader', summary: 'Try a mail of one’s own again now', params: ofMail, query: none, body: none, response: z.array(mailLineSchema) },
  takeBackMail: { method: 'DELETE', path: '/projects/:project/mails/:mail', access: 'reader', summary: 'Take back a mail of one’s own that waits', params: ofMail, query: none, body: nothing, response: z.array(mailLineSchema) },
  readFollowing: { method: 'GET', path: '/projects/:project/artefacts/:id/following', access: 'reader', summary: 'Whether one follows an artefact', params: ofArtefact, query: none, body: nothing, response: followingSchema },
  follow: { method: 'PUT', path: '/projects/:project/artefacts/:id/following', access: 'reader', summary: 'Follow an artefact, or not', params: ofArtefact, query: none, body: followSchema, response: followingSchema },

  listBaselines: { method: 'GET', path: '/projects/:project/baselines', access: 'reader', token: 'read', summary: 'The baselines of the project, the latest first', params: inProject, query: none, body: nothing, response: z.array(baselineSchema) },
  takeBaseline: { method: 'POST', path: '/projects/:project/baselines', access: 'analyst', token: 'write', summary: 'Freeze exact versions of everything, or of a part', params: inProject, query: none, body: newBaselineSchema, response: baselineSchema, most: LIMITS.lists },
  listFrozen: { method: 'GET', path: '/projects/:project/baselines/:baseline/items', access: 'reader', token: 'read', summary: 'What a baseline holds', params: ofBaseline, query: none, body: nothing, response: frozenItemsSchema },
  readFrozen: { method: 'GET', path: '/projects/:project/baselines/:baseline/items/:id', access: 'reader', token: 'read', summary: 'An artefact as a baseline holds it', params: ofBaseline.extend({ id: artefactIdSchema }), query: none, body: nothing, response: frozenContentSchema },
  compareBaselines: { method: 'GET', path: '/projects/:project/baselines/:baseline/changes', access: 'reader', token: 'read', summary: 'What changed from a baseline to another, or to now', params: ofBaseline, query: z.object({ to: baselineNumberSchema.optional() }), body: nothing, response: frozenChangesSchema },
  openMoment: { method: 'POST', path: '/projects/:project/moments/:moment', access: 'reader', reads: true, ofPart: true, summary: 'Open the whole project as a baseline holds it, or as it was at a revision, to be read below a key of its own', params: inProject.extend({ moment: momentTextSchema }), query: none, body: none, response: openedMomentSchema },
  openPart: { method: 'POST', path: '/projects/:project/part', access: 'reader', reads: true, ofPart: true, summary: 'Open what somebody sees who sees only some modules, as it is now, to be read below a key of its own', params: inProject, query: none, body: none, response: openedMomentSchema },
  exportFolder: { method: 'GET', path: '/projects/:project/baselines/:baseline/folder', access: 'reader', token: 'read', summary: 'All that a baseline holds as a zip of open files', params: ofBaseline, query: none, body: nothing, response: fileResponse },
  exportComparison: { method: 'GET', path: '/projects/:project/baselines/:baseline/changes/file', access: 'reader', token: 'read', summary: 'What changed from a baseline to another, or to now, as a file', params: ofBaseline, query: comparisonQuerySchema, body: nothing, response: fileResponse },
  planBringBack: { method: 'POST', path: '/projects/:project/baselines/:baseline/back/plan', access: 'analyst', summary: 'What bringing artefacts back to how a baseline holds them would change', params: ofBaseline, query: none, body: bringBackSchema, response: bringBackPlanSchema, most: LIMITS.lists },
  bringBack: { method: 'POST', path: '/projects/:project/baselines/:baseline/back', access: 'analyst', summary: 'Bring artefacts back to how a baseline holds them, as new versions', params: ofBaseline, query: none, body: bringBackSchema, response: broughtBackSchema, most: LIMITS.lists },
  checkBaseline: { method: 'GET', path: '/projects/:project/baselines/:baseline/check', access: 'reader', token: 'read', summary: 'Whether what a baseline holds is what it was sealed with', params: ofBaseline, query: none, body: nothing, response: sealCheckSchema },

  listHandOffs: { method: 'GET', path: '/projects/:project/hand-offs', access: 'reader', token: 'read', summary: 'The hand-offs of the project, the latest first', params: inProject, query: none, body: nothing, response: z.array(handOffHeadSchema) },
  previewHandOff: { method: 'POST', path: '/projects/:project/hand-offs/preview', access: 'reader', reads: true, summary: 'What of a suite or a baseline would be handed off, and what is doubtful about it', params: inProject, query: none, body: askHandOffSchema, response: handOffPreviewSchema },
  makeHandOff: { method: 'POST', path: '/projects/:project/hand-offs', access: 'analyst', token: 'write', summary: 'Hand off a suite or a baseline: exact versions, given out to people', params: inProject, query: none, body: newHandOffSchema, response: handOffHeadSchema, most: LIMITS.lists },
  readHandOff: { method: 'GET', path: '/projects/:project/hand-offs/:handOff', access: 'reader', token: 'read', summary: 'A hand-off with its lines, and what is newer by now', params: ofHandOff, query: none, body: nothing, response: handOffSchema },
  readReturned: { method: 'POST', path: '/projects/:project/hand-offs/:handOff/returned', access: 'analyst', reads: true, summary: 'What executors noted in a file of a hand-off, each note at its place', params: ofHandOff, query: uploadQuerySchema, body: bytesBody, response: returnedSchema, most: LIMITS.file },
  exportHandOff: { method: 'GET', path: '/projects/:project/hand-offs/:handOff/file', access: 'reader', token: 'read', summary: 'A hand-off, or the part of one person, as a file to execute from', params: ofHandOff, query: exportHandOffQuerySchema, body: nothing, response: fileResponse },

  listArtefacts: {
    method: 'GET', path: '/projects/:project/artefacts', access: 'reader', summary: 'The artefacts of a kind that match a query',
    params: inProject, query: z.object({ kind: z.enum(ARTEFACT_KINDS), query: textUpTo(LIMITS.title).default('') }), body: nothing, response: z.array(summarySchema),
  },
  readHeads: {
    method: 'GET', path: '/projects/:project/heads', access: 'reader', summary: 'What lists show of all artefacts, a page at a time; what changed since comes from the changes',
    params: inProject, query: z.object({ after: z.string().regex(/^\d{1,18}$/).optional() }), body: nothing, response: headsPageSchema,
  },
  readChanges: {
    method: 'GET', path: '/projects/:project/changes', access: 'reader', summary: 'What changed since a revision of the project',
    params: inProject, query: z.object({ since: z.coerce.number().pipe(z.int().min(0).max(LIMITS.number)) }), body: nothing, response: changesSinceSchema,
  },
  readCoverageRows: {
    method: 'GET', path: '/projects/:project/coverage/rows', access: 'reader', summary: 'What coverage says of conditions, cases and questions; since an edition, or of all',
    params: inProject, query: z.object({ since: z.coerce.number().pipe(z.int().min(0).max(LIMITS.number)).optional() }), body: nothing, response: coverageSinceSchema,
  },
  findByWords: {
    method: 'GET', path: '/projects/:project/artefacts/words', access: 'reader', summary: 'Ids of the artefacts of a kind that have words in any of their texts, or in a long text of the project’s own fields',
    params: inProject, query: z.object({ kind: z.enum(ARTEFACT_KINDS), words: textUpTo(LIMITS.title), field: ownFieldIdSchema.optional() }), body: nothing, response: z.object({ ids: z.array(artefactIdSchema) }),
  },
  find: {
    method: 'GET', path: '/projects/:project/find', access: 'reader', summary: 'Artefacts of any kind by id or words, best first',
    params: inProject, query: z.object({ words: textUpTo(LIMITS.title) }), body: nothing, response: z.array(summarySchema),
  },
  createArtefact: { method: 'POST', path: '/projects/:project/artefacts', access: 'analyst', summary: 'Make an artefact with its first version', params: inProject, query: none, body: newArtefactSchema, response: artefactSchema, most: LIMITS.body },
  readArtefact: { method: 'GET', path: '/projects/:project/artefacts/:id', access: 'reader', summary: 'An artefact: its head and one’s own draft', params: ofArtefact, query: none, body: nothing, response: artefactSchema },
  writeArtefacts: { method: 'POST', path: '/projects/:project/artefacts/write', access: 'analyst', summary: 'Make and change several artefacts as one command', params: inProject, query: none, body: writeSchema, response: writtenSchema, most: LIMITS.body },
  changeMany: { method: 'POST', path: '/projects/:project/artefacts/many', access: 'analyst', summary: 'Do the same with many artefacts as one command', params: inProject, query: none, body: changeManySchema, response: changedManySchema, most: LIMITS.lists },
  findPlaces: { method: 'POST', path: '/projects/:project/artefacts/places', access: 'reader', reads: true, summary: 'Texts in which something is found, a page at a time, with what would stand there', params: inProject, query: none, body: findPlacesSchema, response: foundPlacesSchema, most: LIMITS.lists },
  saveArtefact: { method: 'PUT', path: '/projects/:project/artefacts/:id', access: 'analyst', summary: 'Make a version; If-Match names the version it starts from', params: ofArtefact, query: none, body: saveSchema, response: artefactSchema, most: LIMITS.body },
  keepDraft: { method: 'PUT', path: '/projects/:project/artefacts/:id/draft', access: 'analyst', summary: 'Keep one’s working text', params: ofArtefact, query: none, body: draftSchema, response: draftKeptSchema, most: LIMITS.body },
  dropDraft: { method: 'DELETE', path: '/projects/:project/artefacts/:id/draft', access: 'analyst', summary: 'Drop one’s working text', params: ofArtefact, query: dropDraftQuerySchema, body: nothing, response: artefactSchema },
  setState: { method: 'POST', path: '/projects/:project/artefacts/:id/state', access: 'analyst', summary: 'Set the state', params: ofArtefact, query: none, body: stateSchema, response: artefactSchema },
  moveRequirement: { method: 'POST', path: '/projects/:project/artefacts/:id/place', access: 'analyst', summary: 'Move a requirement in the outline', params: ofArtefact, query: none, body: placeSchema, response: artefactSchema },
  listVersions: { method: 'GET', path: '/projects/:project/artefacts/:id/versions', access: 'reader', summary: 'The versions, newest first', params: ofArtefact, query: none, body: nothing, response: z.array(reviewedVersionSchema) },
  readVersion: { method: 'GET', path: '/projects/:project/artefacts/:id/versions/:version', access: 'reader', summary: 'A version', params: ofArtefact.extend({ version: z.coerce.number().pipe(versionNumberSchema) }), query: none, body: nothing, response: versionWithContentSchema },

  readBroken: { method: 'GET', path: '/projects/:project/artefacts/:id/broken', access: 'reader', summary: 'What is stored of an artefact that cannot be read', params: ofArtefact, query: none, body: nothing, response: brokenArtefactSchema },
  restoreVersion: { method: 'POST', path: '/projects/:project/artefacts/:id/restore', access: 'analyst', summary: 'Make an earlier version the newest; If-Match names the head', params: ofArtefact, query: none, body: restoreSchema, response: artefactSchema },

  readLibrary: { method: 'GET', path: '/projects/:project/library', access: 'reader', summary: 'What uses lead to, all the way down', params: inProject, query: libraryQuerySchema, body: nothing, response: librarySchema },
  readReuse: { method: 'GET', path: '/projects/:project/artefacts/:id/reuse', access: 'reader', summary: 'What uses shared steps or a case, and what it uses', params: ofArtefact, query: none, body: nothing, response: reuseSchema },
  findRuns: { method: 'POST', path: '/projects/:project/shared/runs', access: 'reader', reads: true, summary: 'Where the same run of steps stands, or nearly the same', params: inProject, query: none, body: runsQuerySchema, response: foundRunsSchema, most: LIMITS.lists },
  takeOut: { method: 'POST', path: '/projects/:project/shared/take-out', access: 'analyst', summary: 'Take a run of steps out into shared steps', params: inProject, query: none, body: takeOutSchema, response: writtenSchema, most: LIMITS.body },

  renameParameter: { method: 'POST', path: '/projects/:project/shared/rename', access: 'analyst', summary: 'Rename a parameter everywhere, or say what that would change', params: inProject, query: none, body: renameSchema, response: renamedSchema, most: LIMITS.body },
  readReuseGraph: { method: 'GET', path: '/projects/:project/shared/graph', access: 'reader', summary: 'The project’s reuse as a graph', params: inProject, query: none, body: nothing, response: reuseGraphSchema },
  readAlike: { method: 'GET', path: '/projects/:project/shared/alike', access: 'reader', summary: 'Runs of steps and cases nearly alike; asked again while the search goes on', params: inProject, query: none, body: nothing, response: alikeSchema },
  keepAttachment: { method: 'POST', path: '/projects/:project/attachments', access: 'analyst', summary: 'Keep a file that an artefact or a step is about to name', params: inProject, query: z.strictObject({ name: textUpTo(LIMITS.title) }), body: bytesBody, response: attachmentSchema, most: LIMITS.attachment },
  readAttachment: { method: 'GET', path: '/projects/:project/attachments/:attachment', access: 'reader', summary: 'An attached file, to be saved under a name', params: inProject.extend({ attachment: attachmentIdSchema }), query: z.strictObject({ name: textUpTo(LIMITS.title).optional() }), body: nothing, response: fileResponse },

  listChanges: {
    method: 'GET', path: '/projects/:project/journal', access: 'reader', summary: 'The journal, newest first',
    params: inProject, query: z.object({ artefact: artefactIdSchema.optional(), before: revisionSchema.optional(), after: revisionSchema.optional() }), body: nothing, response: z.array(changeSchema),
  },
  undoChange: { method: 'POST', path: '/projects/:project/journal/:change/undo', access: 'analyst', summary: 'Undo a command', params: inProject.extend({ change: z.uuid() }), query: none, body: none, response: changeSchema },

  listBasisTexts: { method: 'GET', path: '/projects/:project/basis/texts', access: 'reader', summary: 'The texts of all requirements that are not withdrawn', params: inProject, query: none, body: nothing, response: basisTextsSchema },
  splitRequirement: { method: 'POST', path: '/projects/:project/artefacts/:id/split', access: 'analyst', summary: 'Split a requirement into several', params: ofArtefact, query: none, body: splitSchema, response: changeSchema, most: LIMITS.lists },
  mergeRequirements: { method: 'POST', path: '/projects/:project/artefacts/:id/merge', access: 'analyst', summary: 'Merge other requirements into one', params: ofArtefact, query: none, body: mergeSchema, response: changeSchema, most: LIMITS.lists },
  listSuspectLinks: { method: 'GET', path: '/projects/:project/suspect', access: 'reader', summary: 'Trace links whose target changed in meaning', params: inProject, query: none, body: nothing, response: z.array(suspectLinkSchema) },
  settleSuspectLinks: { method: 'POST', path: '/projects/:project/suspect', access: 'analyst', summary: 'Say that links are still right', params: inProject, query: none, body: settleSchema, response: changeSchema, most: LIMITS.lists },

  uploadImport: { method: 'POST', path: '/projects/:project/imports', access: 'analyst', summary: 'Bring a file to be imported', params: inProject, query: uploadQuerySchema, body: bytesBody, response: importDraftSchema, most: LIMITS.file },
  fetchStories: { method: 'POST', path: '/projects/:project/imports/stories', access: 'analyst', summary: 'Bring the tracker’s stories to be imported', params: inProject, query: none, body: none, response: importDraftSchema },
  rereadImport: { method: 'POST', path: '/projects/:project/imports/:import/reading', access: 'analyst', summary: 'Read the file in another way', params: ofImport, query: none, body: importStepSchema, response: importDraftSchema, most: LIMITS.lists },
  previewImport: { method: 'POST', path: '/projects/:project/imports/:import/preview', access: 'analyst', summary: 'What the import would do', params: ofImport, query: none, body: importStepSchema, response: importPreviewSchema, most: LIMITS.lists },
  runImport: { method: 'POST', path: '/projects/:project/imports/:import/run', access: 'analyst', summary: 'Import', params: ofImport, query: none, body: runImportSchema, response: changeSchema, most: LIMITS.lists },
  uploadCases: { method: 'POST', path: '/projects/:project/imports/cases', access: 'analyst', summary: 'Bring a file of cases to be imported', params: inProject, query: uploadQuerySchema, body: bytesBody, response: caseDraftSchema, most: LIMITS.file },
  rereadCases: { method: 'POST', path: '/projects/:project/imports/:import/cases/reading', access: 'analyst', summary: 'Read the file of cases in another way', params: ofImport, query: none, body: caseStepSchema, response: caseDraftSchema, most: LIMITS.lists },
  previewCases: { method: 'POST', path: '/projects/:project/imports/:import/cases/preview', access: 'analyst', summary: 'What the import of cases would do', params: ofImport, query: none, body: caseStepSchema, response: casePreviewSchema, most: LIMITS.lists },
  runCases: { method: 'POST', path: '/projects/:project/imports/:import/cases/run', access: 'analyst', summary: 'Import cases', params: ofImport, query: none, body: runCasesSchema, response: changeSchema, most: LIMITS.lists },
  exportCases: { method: 'POST', path: '/projects/:project/cases/export', access: 'reader', reads: true, summary: 'Cases as a file', params: inProject, query: none, body: exportCasesSchema, response: fileResponse, most: LIMITS.lists },
  readAlong: { method: 'POST', path: '/projects/:project/design/along', access: 'reader', reads: true, summary: 'What comes along with artefacts to another project', params: inProject, query: none, body: askAlongSchema, response: alongSchema, most: LIMITS.lists },
  exportDesign: { method: 'POST', path: '/projects/:project/design/export', access: 'reader', reads: true, summary: 'A part of the project with all that it uses, as a design file', params: inProject, query: none, body: exportDesignSchema, response: fileResponse, most: LIMITS.lists },
  uploadDesign: { method: 'POST', path: '/projects/:project/imports/design', access: 'analyst', summary: 'Bring a design file; answers what it would do', params: inProject, query: uploadQuerySchema, body: bytesBody, response: designDraftSchema, most: LIMITS.file },
  runDesign: { method: 'POST', path: '/projects/:project/imports/:import/design/run', access: 'analyst', summary: 'Bring in what a design file carries', params: ofImport, query: none, body: runDesignSchema, response: changeSchema, most: LIMITS.lists },
  readPhrases: { method: 'GET', path: '/projects/:project/phrases', access: 'reader', summary: 'The phrases of all scenarios, and those nearly alike', params: inProject, query: none, body: nothing, response: phrasesSchema },
  readWrittenTwice: { method: 'GET', path: '/projects/:project/scenarios/twice', access: 'reader', summary: 'Scenarios that are the same but for values, or nearly the same', params: inProject, query: none, body: nothing, response: writtenTwiceSchema },
  findPhraseUses: { method: 'POST', path: '/projects/:project/phrases/uses', access: 'reader', reads: true, summary: 'Where phrases are used', params: inProject, query: none, body: phraseUsesSchema, response: foundPhrasesSchema, most: LIMITS.lists },
  exportFeatures: { method: 'POST', path: '/projects/:project/features/export', access: 'reader', reads: true, token: 'read', summary: 'Features as their files: one by itself, several as a zip', params: inProject, query: none, body: exportFeaturesSchema, response: fileResponse, most: LIMITS.lists },
  uploadFeatures: { method: 'POST', path: '/projects/:project/imports/features', access: 'analyst', token: 'write', summary: 'Bring a feature file, or a zip of some; answers what it would do', params: inProject, query: uploadQuerySchema, body: bytesBody, response: featuresDraftSchema, most: LIMITS.file },
  rememberFeatures: { method: 'POST', path: '/projects/:project/features/remember', access: 'analyst', summary: 'Say which features stand in the code as they stand here: what comes in next is told apart from that', token: 'write', params: inProject, query: none, body: bytesBody, response: rememberedFeaturesSchema, most: LIMITS.file },
  runFeatures: { method: 'POST', path: '/projects/:project/imports/:import/features/run', access: 'analyst', token: 'write', summary: 'Bring in features', params: ofImport, query: none, body: runFeaturesSchema, response: changeSchema, most: LIMITS.lists },
  readImportProgress: { method: 'GET', path: '/projects/:project/imports/:import', access: 'analyst', summary: 'How far the import is', params: ofImport, query: none, body: nothing, response: importProgressSchema },
  cancelImport: { method: 'DELETE', path: '/projects/:project/imports/:import', access: 'analyst', token: 'write', summary: 'Stop the import; nothing of it stays', params: ofImport, query: none, body: nothing, response: importProgressSchema },
  exportBasis: { method: 'GET', path: '/projects/:project/basis/export', access: 'reader', summary: 'The basis as a file', params: inProject, query: exportQuerySchema, body: nothing, response: fileResponse },
  exportQuestions: { method: 'GET', path: '/projects/:project/questions/export', access: 'reader', summary: 'The questions as a file', params: inProject, query: agendaQuerySchema, body: nothing, response: fileResponse },

  readTracker: { method: 'GET', path: '/projects/:project/tracker', access: 'reader', summary: 'What is known of the tracker', params: inProject, query: none, body: nothing, response: trackerStateSchema },
  checkTracker: { method: 'POST', path: '/projects/:project/tracker', access: 'analyst', summary: 'Ask the tracker what has changed', params: inProject, query: none, body: none, response: trackerStateSchema },
  findDefects: { method: 'GET', path: '/projects/:project/tracker/defects', access: 'reader', summary: 'Defects in the tracker by words', params: inProject, query: z.object({ words: textUpTo(LIMITS.title) }), body: nothing, response: z.array(defectSchema) },

  measureSuite: { method: 'POST', path: '/projects/:project/suites/measured', access: 'reader', reads: true, summary: 'What a suite comes to as it is written: members, minutes, and what they show', params: inProject, query: none, body: writtenSuiteSchema, response: suiteFiguresSchema, most: LIMITS.lists },
  readShowing: { method: 'POST', path: '/projects/:project/suites/showing', access: 'reader', reads: true, summary: 'Which items each member of a suite shows: what a smaller one is worked out from', params: inProject, query: none, body: writtenSuiteSchema, response: showingMembersSchema, most: LIMITS.lists },
  findAdditions: { method: 'POST', path: '/projects/:project/suites/additions', access: 'reader', reads: true, summary: 'What would show the items that a suite misses', params: inProject, query: none, body: askAdditionsSchema, response: additionsSchema, most: LIMITS.lists },
  readCandidates: { method: 'POST', path: '/projects/:project/suites/candidates', access: 'reader', reads: true, summary: 'Which of some items each case and scenario shows: what the smallest suite of them is worked out from', params: inProject, query: none, body: askedItemsSchema, response: candidatesSchema },
  findTouched: { method: 'POST', path: '/projects/:project/suites/touched', access: 'reader', reads: true, summary: 'The cases and scenarios that a change touches, with what of it does', params: inProject, query: none, body: askTouchedSchema, response: touchedSchema },
  readSuitesOf: { method: 'GET', path: '/projects/:project/artefacts/:id/suites', access: 'reader', summary: 'The suites a case is in, or scenarios of a feature', params: inProject.extend({ id: z.union([caseIdSchema, featureIdSchema]) }), query: none, body: nothing, response: suitesOfSchema },
  readSuites: { method: 'GET', path: '/projects/:project/suites', access: 'reader', summary: 'What each suite comes to, and who is in it', params: inProject, query: none, body: nothing, response: suiteLinesSchema },

  readCoverage: { method: 'GET', path: '/projects/:project/coverage', access: 'reader', summary: 'The coverage of the project', params: inProject, query: none, body: nothing, response: coverageReportSchema },
  listItems: { method: 'GET', path: '/projects/:project/coverage/items', access: 'reader', summary: 'The coverage items behind a number, worst first', params: inProject, query: itemQuerySchema, body: nothing, response: itemListSchema },
  readFigures: { method: 'GET', path: '/projects/:project/coverage/figures', access: 'reader', token: 'read', summary: 'What the project comes to now: the whole, each risk, module, technique and suite', params: inProject, query: none, body: nothing, response: pointSchema },
  readTrend: { method: 'GET', path: '/projects/:project/coverage/trend', access: 'reader', token: 'read', summary: 'What the project came to at the end of each day, as far as it is counted', params: inProject, query: none, body: nothing, response: trendSchema },
  countTrend: { method: 'POST', path: '/projects/:project/coverage/trend', access: 'reader', reads: true, summary: 'Count days that are not counted yet, for some seconds', params: inProject, query: none, body: none, response: trendLeftSchema },
  readRequirementTrend: { method: 'GET', path: '/projects/:project/coverage/trend/requirements/:id', access: 'reader', token: 'read', summary: 'What a requirement came to at the end of each day', params: inProject.extend({ id: requirementIdSchema }), query: none, body: nothing, response: requirementTrendSchema },
  readBends: { method: 'GET', path: '/projects/:project/coverage/trend/:revision', access: 'reader', token: 'read', summary: 'The requirements that came to something else on a day', params: inProject.extend({ revision: revisionSchema }), query: none, body: nothing, response: bendsSchema },
  readReport: { method: 'GET', path: '/projects/:project/coverage/report', access: 'reader', token: 'read', summary: 'What those who decide are told: where it stands, the worst gaps, what waits for whom, and what changed since a baseline', params: inProject, query: reportQuerySchema, body: nothing, response: designReportSchema },
  readSpecification: { method: 'GET', path: '/projects/:project/specification', access: 'reader', token: 'read', summary: 'All that is designed, or a part of it with what that uses, whole: to be printed', params: inProject, query: specificationQuerySchema, body: nothing, response: specificationSchema },
  readMatrix: { method: 'GET', path: '/projects/:project/coverage/matrix', access: 'reader', token: 'read', summary: 'What each case and scenario, or each suite, shows of each condition', params: inProject, query: matrixQuerySchema, body: nothing, response: matrixCellsSchema },
  listConditions: {
    method: 'GET', path: '/projects/:project/coverage/requirements/:requirement', access: 'reader', summary: 'The conditions of a requirement, without their models',
    params: inProject.extend({ requirement: requirementIdSchema }), query: none, body: nothing, response: z.array(conditionLineSchema),
  },
  readDesign: {
    method: 'GET', path: '/projects/:project/design', access: 'reader', summary: 'The part of the design around a requirement, a condition, a case, a data set or a feature',
    params: inProject, query: z.object({ requirement: requirementIdSchema.optional(), condition: conditionIdSchema.optional(), case: caseIdSchema.optional(), dataSet: dataSetIdSchema.optional(), feature: featureIdSchema.optional() }), body: nothing, response: designSchema,
  },
} as const satisfies Record<string, AnyEndpoint>;

/** All operations by their names. */
export type Api = typeof api;
/** The name of an operation. */
export type Operation = keyof Api;
/** What stands in the path, parsed. */
export type ParamsOf<N extends Operation> = z.output<Api[N]['params']>;
/** What stands behind the `?`, parsed: numbers are numbers. */
export type QueryOf<N extends Operation> = z.output<Api[N]['query']>;
/** What stands behind the `?`, as a caller gives it. */
export type QueryInputOf<N extends Operation> = z.input<Api[N]['query']>;
/** The body, parsed; undefined where there is none. */
export type BodyOf<N extends Operation> = z.output<Api[N]['body']>;
/** What is answered when nothing is refused. */
export type ResponseOf<N extends Operation> = z.output<Api[N]['response']>;

/** All paths of {@link api} are below it. */
export const API_ROOT = '/api/v1';
/** Server-sent events of a project, for members: {@link PROJECT_EVENTS}, each with what changed since the one before. */
export const EVENTS_PATH = '/projects/:project/events';
