import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { asJson, sameJson } from '@caderno/core/versions';
import { momentOfText, requirementIdSchema, type Operation, type ResponseOf } from '@caderno/contract';
import { createArtefact, describeArtefact, dropDraft, findArtefact, keepDraft, moveRequirement, readArtefact, readBroken, readLibrary, restoreVersion, saveArtefact, setState } from '../artefacts/index.ts';
import { bringBack, compareBaselines, findTouched, listBaselines, listFrozen, planBringBack, readFrozen } from '../baselines/index.ts';
import { listBasisTexts, listSuspectLinks, mergeRequirements, saveSettings, settleSuspectLinks, splitRequirement } from '../basis/index.ts';
import { listConditions, readDesign } from '../coverage/index.ts';
import { cancelRun, readProgress } from '../exchange/index.ts';
import { find, findByWords, chosenIds, findPlaces, listByQuery } from '../find/index.ts';
import { listHandOffs, readHandOff } from '../handOffs/index.ts';
import { openMoment, openPart } from '../moments/index.ts';
import { follow, markInbox, readChoices, readFollowing, saveChoices } from '../inbox/index.ts';
import { answer, beginThread, listOpenThreads, listRemarks, rewordRemark, settleThread, takeBackRemark, takeOffer, type Speaker } from '../remarks/index.ts';
import { listSavedQueries, readListViews, removeQuery, saveListView, saveQuery, type Asker } from '../lists/index.ts';
import { readSpecification } from '../specification/index.ts';
import { answerReview, askAgain, askReview, changeReview, decideAnew, endReview, listReviews, readHanging, readReview } from '../reviews/index.ts';
import { changeAccount, changeRole, changeSeenModules, confirmEmail, describeSession, invite, listInvitations, openInvitation, withdrawInvitation, endSession, endSessionById, joinMember, listAccounts, listMembers, listPersonEvents, listSessions, listTokens, makeResetLink, makeToken, notePersonEvent, removeMember, withdrawToken } from '../people/index.ts';
import { listMails, mailingOf, sendAgain, takeBack } from '../mail/index.ts';
import { sendByMail } from '../sendByMail/index.ts';
import { createProject, readProject, readSettings } from '../projects/index.ts';
import { endReadLink, listReadLinks, makeReadLink, openReadLink, type Giver } from '../readLinks/index.ts';
import { DomainError } from '../domainError.ts';
import { revealSecret } from '../secrets/index.ts';
import { readReuse, readReuseGraph, renameParameter, takeOut } from '../shared/index.ts';
import { readSuitesOf } from '../suites/index.ts';
import { readOutsideHosts, readTrackerState, saveOutsideHosts } from '../tracker/index.ts';
import { readRequirementTrend } from '../trend/index.ts';
import { changeMany, listChanges, listVersions, readVersion, undoChange, writeArtefacts } from '../versions/index.ts';
import type { ApartOperation } from './apart.ts';
import { actorOf, askingOf, membershipOf, personOf, type Call } from './context.ts';
import type { Input, OperationRequest } from './request.ts';

export type Handler<N extends Operation> = (input: Input<N>, call: Call) => Promise<ResponseOf<N>>;

/** The operations that work in one transaction, from admission to answer. */
export type HeldOperation = Exclude<Operation, ApartOperation>;
/** A request of one of them. */
export type HeldRequest = OperationRequest<HeldOperation>;

/** One handler an operation: a short path from parsed input to a service. An operation without one does not compile. */
export const handlers: { readonly [N in HeldOperation]: Handler<N> } = {
  readSession: (_, call) => describeSession(call.work, call.person, call.parts),
  signOut: async (_, call) => {
    if (call.session.token !== null) await endSession(call.work, call.session.token);
    if (call.person !== null) await notePersonEvent(call.work, { action: 'signedOut', by: call.person.id });
    call.session.set(null);
    return describeSession(call.work, null, call.parts);
  },
  listSessions: (_, call) => listSessions(call.work, personOf(call).id, call.session.token),
  endSession: async ({ params }, call) => {
    await endSessionById(call.work, personOf(call).id, params.session);
    await notePersonEvent(call.work, { action: 'sessionEnded', by: personOf(call).id });
    return listSessions(call.work, personOf(call).id, call.session.token);
  },
  listTokens: (_, call) => listTokens(call.work, personOf(call).id),
  makeToken: ({ body }, call) => makeToken(call.work, personOf(call), body),
  withdrawToken: ({ params }, call) => withdrawToken(call.work, personOf(call), params.token),
  listAccounts: (_, call) => listAccounts(call.work),
  listPersonEvents: ({ query }, call) => listPersonEvents(call.work, null, query.before ?? null),
  changeAccount: ({ params, body }, call) => changeAccount(call.work, personOf(call), params.person, body),
  makeResetLink: ({ params }, call) => makeResetLink(call.work, personOf(call), params.person, call.parts.now()),
  readOutsideHosts: async (_, call) => ({ hosts: await readOutsideHosts(call.work) }),
  saveOutsideHosts: async ({ body }, call) => ({ hosts: await saveOutsideHosts(call.work, personOf(call), body.hosts) }),

  createProject: async ({ body }, call) => {
    const { key, name, role } = await createProject(call.work, personOf(call).id, body);
    return { key, name, role, sees: null };
  },
  readProject: (_, call) => readProject(call.work, membershipOf(call)),
  listMembers: (_, call) => listMembers(call.work, membershipOf(call).projectId),
  joinMember: ({ body }, call) => joinMember(call.work, personOf(call), membershipOf(call).projectId, body),
  listInvitations: (_, call) => listInvitations(call.work, membershipOf(call).projectId),
  invite: ({ body }, call) => invite(call.work, mailingOf(call.parts), { by: personOf(call), projectId: membershipOf(call).projectId, demoSignIn: call.parts.demoSignIn }, body),
  withdrawInvitation: ({ params }, call) => withdrawInvitation(call.work, personOf(call), membershipOf(call).projectId, params.invitation),
  listReadLinks: (_, call) => listReadLinks(call.work, membershipOf(call).projectId, call.parts.now()),
  makeReadLink: ({ body }, call) => makeReadLink(call.work, giverOf(call), body),
  endReadLink: ({ params }, call) => endReadLink(call.work, giverOf(call), params.link),
  openReadLink: ({ body }, call) => openReadLink(call.work, body.token, call.parts.now(), call.remote),
  openInvitation: async ({ body }, call) => {
    const { project, email, role, by } = await openInvitation(call.work, body.token);
    return { project, email, role, by };
  },
  confirmEmail: async ({ body }, call) => {
    await confirmEmail(call.work, body.token);
    return describeSession(call.work, call.person, call.parts);
  },
  changeRole: async ({ params, body }, call) => {
    const member = await changeRole(call.work, personOf(call), membershipOf(call).projectId, params.person, body.role);
    await decideAnew(call.work, actorOf(call));
    return member;
  },
  changeSeenModules: async ({ params, body }, call) => {
    const member = await changeSeenModules(call.work, personOf(call), membershipOf(call).projectId, params.person, body.sees);
    await decideAnew(call.work, actorOf(call));
    return member;
  },
  removeMember: async ({ params }, call) => {
    const members = await removeMember(call.work, personOf(call), membershipOf(call).projectId, params.person);
    await decideAnew(call.work, actorOf(call));
    return members;
  },
  listMemberEvents: ({ query }, call) => listPersonEvents(call.work, membershipOf(call).projectId, query.before ?? null),
  revealConstant: async ({ params, body }, call) => {
    const { projectId } = membershipOf(call);
    const value = await revealSecret(call.work, call.parts.secrets, projectId, params.constant, body.configuration);
    const name = (await readSettings(call.work, projectId)).settings.constants.find((c) => c.id === params.constant)?.name ?? params.constant;
    await notePersonEvent(call.work, { action: 'secretRevealed', by: personOf(call).id, projectId, detail: name });
    return { value };
  },

  readSettings: (_, call) => readSettings(call.work, membershipOf(call).projectId),
  saveSettings: async ({ body }, call) => {
    const before = await readSettings(call.work, membershipOf(call).projectId);
    const saved = await saveSettings(call.work, call.parts.secrets, actorOf(call), membershipOf(call).role, requireIfMatch(call), body);
    if (!sameJson(asJson(before.settings.agreement), asJson(saved.settings.agreement))) await decideAnew(call.work, actorOf(call));
    return saved;
  },

  listSavedQueries: (_, call) => listSavedQueries(call.work, askerOf(call)),
  saveQuery: ({ params, body }, call) => saveQuery(call.work, askerOf(call), params.query, body),
  removeQuery: ({ params }, call) => removeQuery(call.work, askerOf(call), params.query),
  readListViews: (_, call) => readListViews(call.work, personOf(call).id),
  saveListView: ({ params, body }, call) => saveListView(call.work, personOf(call).id, params.kind, body),

  listHandOffs: (_, call) => listHandOffs(call.work, membershipOf(call).projectId),
  readHandOff: ({ params }, call) => readHandOff(call.work, membershipOf(call).projectId, params.handOff),

  listRemarks: ({ params }, call) => listRemarks(call.work, membershipOf(call).projectId, params.id),
  beginThread: ({ params, body }, call) => beginThread(call.work, speakerOf(call), params.id, body),
  answerRemark: ({ params, body }, call) => answer(call.work, speakerOf(call), params.remark, body),
  rewordRemark: ({ params, body }, call) => rewordRemark(call.work, speakerOf(call), params.remark, body.text),
  takeBackRemark: ({ params }, call) => takeBackRemark(call.work, speakerOf(call), params.remark),
  settleThread: ({ params, body }, call) => settleThread(call.work, speakerOf(call), params.remark, body.settled),
  takeOffer: ({ params, body }, call) => takeOffer(call.work, speakerOf(call), actorOf(call), params.remark, body.version),
  listOpenThreads: (_, call) => listOpenThreads(call.work, membershipOf(call).projectId, personOf(call).id),

  markInbox: ({ body }, call) => markInbox(call.work, askerOf(call), body, call.parts.now()),
  readInboxChoices: (_, call) => readChoices(call.work, askerOf(call)),
  saveInboxChoices: ({ body }, call) => saveChoices(call.work, askerOf(call), body),
  listMails: (_, call) => listMails(call.work, membershipOf(call).projectId, personOf(call).id),
  sendByMail: async ({ body }, call) => {
    await sendByMail(call.work, mailingOf(call.parts), { ...membershipOf(call), by: personOf(call), asking: askingOf(call) }, body);
    return listMails(call.work, membershipOf(call).projectId, personOf(call).id);
  },
  sendMailAgain: async ({ params }, call) => {
    await sendAgain(call.work, membershipOf(call).projectId, personOf(call).id, params.mail, call.parts.now());
    return listMails(call.work, membershipOf(call).projectId, personOf(call).id);
  },
  takeBackMail: async ({ params }, call) => {
    await takeBack(call.work, membershipOf(call).projectId, personOf(call).id, params.mail);
    return listMails(call.work, membershipOf(call).projectId, personOf(call).id);
  },
  readFollowing: ({ params }, call) => readFollowing(call.work, askerOf(call), params.id),
  follow: ({ params, body }, call) => follow(call.work, askerOf(call), params.id, body.follows),

  listBaselines: (_, call) => listBaselines(call.work, membershipOf(call).projectId),
  listFrozen: ({ params }, call) => listFrozen(call.work, membershipOf(call).projectId, params.baseline),
  readFrozen: ({ params }, call) => readFrozen(call.work, membershipOf(call).projectId, params.baseline, params.id),
  compareBaselines: ({ params, query }, call) => compareBaselines(call.work, membershipOf(call).projectId, params.baseline, query.to ?? null),
  openMoment: ({ params }, call) => openMoment(call.work, membershipOf(call), momentOfText(params.moment)),
  openPart: (_, call) => openPart(call.work, membershipOf(call)),
  planBringBack: ({ params, body }, call) => planBringBack(call.work, membershipOf(call).projectId, params.baseline, body),
  bringBack: ({ params, body }, call) => bringBack(call.work, actorOf(call), params.baseline, body),

  readSpecification: ({ query }, call) => readSpecification(call.work, membershipOf(call).projectId, call.parts.now(), query),
  listReviews: (_, call) => listReviews(call.work, membershipOf(call).projectId),
  readReview: async ({ params }, call) => (await readReview(call.work, membershipOf(call).projectId, params.review)).review,
  askReview: ({ body }, call) => askReview(call.work, actorOf(call), body),
  changeReview: ({ params, body }, call) => changeReview(call.work, actorOf(call), params.review, body),
  answerReview: ({ params, body }, call) => answerReview(call.work, actorOf(call), params.review, body),
  askAgain: ({ params, body }, call) => askAgain(call.work, actorOf(call), params.review, body.ids),
  endReview: ({ params }, call) => endReview(call.work, actorOf(call), params.review),
  findTouched: ({ body }, call) => findTouched(call.work, membershipOf(call).projectId, body),
  readSuitesOf: ({ params }, call) => readSuitesOf(call.work, membershipOf(call).projectId, params.id, call.parts.now().getTime()),
  readHanging: ({ params }, call) => readHanging(call.work, membershipOf(call).projectId, params.id, call.parts.now().getTime()),

  listArtefacts: ({ query }, call) => listByQuery(call.work, membershipOf(call).projectId, query.kind, query.query, askingOf(call)),
  findByWords: async ({ query }, call) => ({ ids: await findByWords(call.work, membershipOf(call).projectId, query.kind, { words: query.words, field: query.field ?? null }) }),
  find: ({ query }, call) => find(call.work, membershipOf(call).projectId, query.words),
  createArtefact: async ({ body }, call) => describeArtefact(call.work, personOf(call).id, await createArtefact(call.work, actorOf(call), body)),
  readArtefact: ({ params }, call) => readArtefact(call.work, membershipOf(call).projectId, personOf(call).id, params.id),
  saveArtefact: async ({ params, body }, call) => {
    const row = await saveArtefact(call.work, actorOf(call), params.id, requireIfMatch(call), body, body.note, { keeps: body.keepsDraft ?? false, ...(body.sequence === undefined ? {} : { sequence: body.sequence }) });
    return describeArtefact(call.work, personOf(call).id, row);
  },
  keepDraft: async ({ params, body }, call) => {
    const at = call.parts.now();
    await keepDraft(call.work, membershipOf(call).projectId, personOf(call).id, params.id, body, at);
    return { at: at.toISOString() };
  },
  dropDraft: async ({ params, query }, call) => {
    await dropDraft(call.work, membershipOf(call).projectId, personOf(call).id, params.id, query.sequence ?? null);
    return readArtefact(call.work, membershipOf(call).projectId, personOf(call).id, params.id);
  },
  setState: async ({ params, body }, call) => describeArtefact(call.work, personOf(call).id, await setState(call.work, actorOf(call), params.id, body.state)),
  moveRequirement: async ({ params, body }, call) => {
    const row = await findArtefact(call.work, membershipOf(call).projectId, params.id);
    if (row.kind !== 'requirement') throw new DomainError({ code: 'kind_mismatch', id: params.id, kind: 'requirement' });
    return describeArtefact(call.work, personOf(call).id, await moveRequirement(call.work, actorOf(call), `R-${row.number}`, body));
  },
  readBroken: ({ params }, call) => readBroken(call.work, membershipOf(call).projectId, params.id),
  restoreVersion: async ({ params, body }, call) => describeArtefact(call.work, personOf(call).id, await restoreVersion(call.work, actorOf(call), params.id, requireIfMatch(call), body.version)),
  listVersions: ({ params }, call) => listVersions(call.work, membershipOf(call).projectId, params.id),
  readVersion: ({ params }, call) => readVersion(call.work, membershipOf(call).projectId, params.id, params.version),

  findPlaces: async ({ body }, call) => findPlaces(call.work, membershipOf(call).projectId, await chosenIds(call.work, { projectId: membershipOf(call).projectId, asking: askingOf(call) }, body.of), body),
  writeArtefacts: ({ body }, call) => writeArtefacts(call.work, actorOf(call), body),
  changeMany: async ({ body }, call) => {
    return changeMany(call.work, actorOf(call), await chosenIds(call.work, { projectId: membershipOf(call).projectId, asking: askingOf(call) }, body.of), body);
  },

  readLibrary: async ({ query }, call) => {
    const library = await readLibrary(call.work, membershipOf(call).projectId, query.uses.split(',').filter(Boolean));
    return [...library].map(([key, used]) => ({ key, used }));
  },
  readReuse: ({ params }, call) => readReuse(call.work, membershipOf(call).projectId, params.id),
  takeOut: ({ body }, call) => takeOut(call.work, actorOf(call), body),

  renameParameter: ({ body }, call) => renameParameter(call.work, actorOf(call), body),
  readReuseGraph: (_, call) => readReuseGraph(call.work, membershipOf(call).projectId),

  listChanges: ({ query }, call) => listChanges(call.work, membershipOf(call).projectId, query),
  undoChange: ({ params }, call) => undoChange(call.work, call.parts.secrets, actorOf(call), membershipOf(call).role, params.change),

  listBasisTexts: (_, call) => listBasisTexts(call.work, membershipOf(call).projectId),
  splitRequirement: ({ params, body }, call) => splitRequirement(call.work, actorOf(call), requirementOf(params.id), body),
  mergeRequirements: ({ params, body }, call) => mergeRequirements(call.work, actorOf(call), requirementOf(params.id), body),
  listSuspectLinks: (_, call) => listSuspectLinks(call.work, membershipOf(call).projectId),
  settleSuspectLinks: ({ body }, call) => settleSuspectLinks(call.work, actorOf(call), body.links),

  readImportProgress: ({ params }, call) => readProgress(call.work, membershipOf(call).projectId, params.import),
  cancelImport: ({ params }, call) => cancelRun(call.work, membershipOf(call).projectId, params.import),

  readTracker: (_, call) => readTrackerState(call.work, membershipOf(call).projectId),

  readRequirementTrend: ({ params }, call) => readRequirementTrend(call.work, membershipOf(call).projectId, params.id),

  listConditions: ({ params }, call) => listConditions(call.work, membershipOf(call).projectId, params.requirement),
  readDesign: ({ query }, call) => readDesign(call.work, membershipOf(call).projectId, query),
};

function requirementOf(id: ArtefactId): RequirementId {
  const parsed = requirementIdSchema.safeParse(id);
  if (!parsed.success) throw new DomainError({ code: 'kind_mismatch', id, kind: 'requirement' });
  return parsed.data;
}

function requireIfMatch(call: Call): number {
  if (call.ifMatch !== null) return call.ifMatch;
  throw new DomainError({ code: 'request_invalid', issues: [{ path: 'If-Match', message: 'must name the version the save starts from' }] });
}

function speakerOf(call: Call): Speaker {
  return { ...membershipOf(call), personId: personOf(call).id, at: call.parts.now() };
}

function askerOf(call: Call): Asker {
  return { ...membershipOf(call), personId: personOf(call).id };
}

function giverOf(call: Call): Giver {
  return { by: personOf(call), projectId: membershipOf(call).projectId, at: call.parts.now() };
}
