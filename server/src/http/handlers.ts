import { masked, type Constant } from '@caderno/core/shared';
import type { Standing } from '@caderno/core/coverage';
import { STANDINGS } from '@caderno/core/coverage';
import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { requirementIdSchema, roleReaches, type BodyOf, type Operation, type ParamsOf, type QueryOf, type ResponseOf } from '@caderno/contract';
import { createArtefact, describeArtefact, dropDraft, findArtefact, keepAttachment, keepDraft, moveRequirement, readArtefact, readAttachment, readLibrary, saveArtefact, setState } from '../artefacts/index.ts';
import { modelsOf } from '../database/index.ts';
import { listBasisTexts, listSuspectLinks, mergeRequirements, saveSettings, settleSuspectLinks, splitRequirement } from '../basis/index.ts';
import { listConditions, readDesign } from '../coverage/index.ts';
import { cancelRun, checkStories, exportBasis, exportQuestions, readProgress } from '../exchange/index.ts';
import { find, listByQuery } from '../find/index.ts';
import { addMember, checkSignIn, describeSession, endSession, listMembers, refuseTooManyFailures, setUp, startSession } from '../people/index.ts';
import { createProject, readProject, readSettings } from '../projects/index.ts';
import { Refused } from '../refused.ts';
import { readReuse, readReuseGraph, renameParameter, takeOut } from '../shared/index.ts';
import { listChanges, listVersions, readVersion, undoChange, writeArtefacts } from '../versions/index.ts';
import { findDefects, readTrackerState } from '../tracker/index.ts';
import { commanderOf, membershipOf, personOf, type Call } from './context.ts';
import { describeAgain, preview, run, upload, uploadStories } from './imports.ts';

export interface Input<N extends Operation> {
  readonly params: ParamsOf<N>;
  readonly query: QueryOf<N>;
  readonly body: BodyOf<N>;
}
export type Handler<N extends Operation> = (input: Input<N>, call: Call) => Promise<ResponseOf<N>>;

/** One handler an operation: a short path from parsed input to a service. An operation without one does not compile. */
export const handlers: { readonly [N in Operation]: Handler<N> } = {
  readSession: (_, call) => describeSession(call.work, call.person),
  signIn: async ({ body }, call) => {
    const who = 'email' in body ? `${call.remote} ${body.email.toLowerCase()}` : call.remote;
    await refuseTooManyFailures(call.work, who);
    return enter(call, await checkSignIn(call.work, body));
  },
  signOut: async (_, call) => {
    if (call.session.token !== null) await endSession(call.work, call.session.token);
    call.session.set(null);
    return describeSession(call.work, null);
  },
  setUp: async ({ body }, call) => enter(call, await setUp(call.work, body)),

  createProject: async ({ body }, call) => {
    const { key, name, role } = await createProject(call.work, personOf(call).id, body);
    return { key, name, role };
  },
  readProject: (_, call) => readProject(call.work, membershipOf(call).projectId, membershipOf(call).role),
  listMembers: (_, call) => listMembers(call.work, membershipOf(call).projectId),
  addMember: ({ body }, call) => addMember(call.work, membershipOf(call).projectId, body),

  readSettings: async (_, call) => {
    const { version, settings } = await readSettings(call.work, membershipOf(call).projectId);
    return { version, settings: { ...settings, constants: seenConstants(call, settings.constants) } };
  },
  saveSettings: ({ body }, call) => saveSettings(call.work, commanderOf(call), membershipOf(call).role, requireIfMatch(call), body),

  listArtefacts: ({ query }, call) => listByQuery(call.work, membershipOf(call).projectId, query.kind, query.query),
  find: ({ query }, call) => find(call.work, membershipOf(call).projectId, query.words),
  createArtefact: async ({ body }, call) => describeArtefact(call.work, personOf(call).id, await createArtefact(call.work, commanderOf(call), body)),
  readArtefact: ({ params }, call) => readArtefact(call.work, membershipOf(call).projectId, personOf(call).id, params.id),
  saveArtefact: async ({ params, body }, call) => {
    const row = await saveArtefact(call.work, commanderOf(call), params.id, requireIfMatch(call), body, body.note, body.keepsDraft ?? false);
    return describeArtefact(call.work, personOf(call).id, row);
  },
  keepDraft: async ({ params, body }, call) => {
    const at = call.parts.now();
    await keepDraft(call.work, membershipOf(call).projectId, personOf(call).id, params.id, body.base, body, at);
    return { at: at.toISOString() };
  },
  dropDraft: async ({ params }, call) => {
    await dropDraft(call.work, membershipOf(call).projectId, personOf(call).id, params.id);
    return readArtefact(call.work, membershipOf(call).projectId, personOf(call).id, params.id);
  },
  setState: async ({ params, body }, call) => describeArtefact(call.work, personOf(call).id, await setState(call.work, commanderOf(call), params.id, body.state)),
  moveRequirement: async ({ params, body }, call) => {
    const row = await findArtefact(call.work, membershipOf(call).projectId, params.id);
    if (row.kind !== 'requirement') throw new Refused({ code: 'kind_mismatch', id: params.id, kind: 'requirement' });
    return describeArtefact(call.work, personOf(call).id, await moveRequirement(call.work, commanderOf(call), `R-${row.number}`, body));
  },
  listVersions: ({ params }, call) => listVersions(call.work, membershipOf(call).projectId, params.id),
  readVersion: ({ params }, call) => readVersion(call.work, membershipOf(call).projectId, params.id, params.version),

  writeArtefacts: ({ body }, call) => writeArtefacts(call.work, commanderOf(call), body),

  readLibrary: async ({ query }, call) => {
    const library = await readLibrary(call.work, membershipOf(call).projectId, query.uses.split(',').filter(Boolean));
    return [...library].map(([key, used]) => ({ key, used }));
  },
  readReuse: ({ params }, call) => readReuse(call.work, membershipOf(call).projectId, params.id),
  // The coverage keeper holds all cases, and a thread of its own to look through them.
  findRuns: ({ body }, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'runs', ...body }),
  takeOut: ({ body }, call) => takeOut(call.work, commanderOf(call), body),

  renameParameter: ({ body }, call) => renameParameter(call.work, commanderOf(call), body),
  readReuseGraph: (_, call) => readReuseGraph(call.work, membershipOf(call).projectId),
  readAlike: async (_, call) => {
    const { search, runs, cases } = await call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'alike' });
    return { search, runs: runs.map((r) => ({ length: r.length, places: r.places.map((p) => ({ id: p.id, steps: [...p.steps] })) })), cases: [...cases] };
  },
  keepAttachment: async ({ body }, call) => ({ id: await keepAttachment(call.work, membershipOf(call).projectId, body, call.parts.now()) }),
  readAttachment: ({ params }, call) => readAttachment(call.work, membershipOf(call).projectId, params.attachment),

  listChanges: ({ query }, call) => listChanges(call.work, membershipOf(call).projectId, query),
  undoChange: ({ params }, call) => undoChange(call.work, commanderOf(call), membershipOf(call).role, params.change),

  listBasisTexts: (_, call) => listBasisTexts(call.work, membershipOf(call).projectId),
  splitRequirement: ({ params, body }, call) => splitRequirement(call.work, commanderOf(call), requirementOf(params.id), body),
  mergeRequirements: ({ params, body }, call) => mergeRequirements(call.work, commanderOf(call), requirementOf(params.id), body),
  listSuspectLinks: (_, call) => listSuspectLinks(call.work, membershipOf(call).projectId),
  settleSuspectLinks: ({ body }, call) => settleSuspectLinks(call.work, commanderOf(call), body.links),

  uploadImport: ({ query, body }, call) => upload(call, query.name, body),
  fetchStories: (_, call) => uploadStories(call),
  rereadImport: ({ params, body }, call) => describeAgain(call, params.import, body.reading),
  previewImport: ({ params, body }, call) => preview(call, params.import, body.mapping, body.reading),
  runImport: ({ params, body }, call) => run(call, params.import, body),
  readImportProgress: ({ params }, call) => readProgress(call.work, membershipOf(call).projectId, params.import),
  cancelImport: ({ params }, call) => cancelRun(call.work, membershipOf(call).projectId, params.import),
  exportBasis: async ({ query }, call) => {
    const { projectId } = membershipOf(call);
    const report = query.figures === 'yes' ? await call.parts.coverage.ask(projectId, { kind: 'report' }) : null;
    return exportBasis(call.work, projectId, query.format, report, call.parts.now());
  },
  exportQuestions: async ({ query }, call) => {
    const { projectId } = membershipOf(call);
    return exportQuestions(call.work, projectId, query.format, query.status, await call.parts.coverage.ask(projectId, { kind: 'heldUp' }));
  },

  readTracker: (_, call) => readTrackerState(call.work, membershipOf(call).projectId),
  checkTracker: (_, call) => checkStories(call.work, membershipOf(call).projectId, call.parts.now()),
  findDefects: ({ query }, call) => findDefects(call.work, membershipOf(call).projectId, query.words),

  readHeldUp: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'heldUp' }),
  readCoverage: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'report' }),
  listItems: async ({ query }, call) => {
    const { limit, standing, ...filter } = query;
    const question = { kind: 'items' as const, filter: { ...filter, standings: standing === undefined ? undefined : parseStandings(standing) }, limit };
    const { items, total } = await call.parts.coverage.ask(membershipOf(call).projectId, question);
    return { items: [...items], total };
  },
  readCaseMarks: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'caseMarks' }),
  readCaseCounts: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'caseCounts' }),
  listConditions: async ({ params }, call) => {
    const { projectId } = membershipOf(call);
    return listConditions(call.work, projectId, params.requirement, await call.parts.coverage.ask(projectId, { kind: 'standings', requirement: params.requirement }));
  },
  readDesign: async ({ query }, call) => {
    const design = await readDesign(call.work, membershipOf(call).projectId, query);
    return { ...design, constants: seenConstants(call, design.constants) };
  },
};

/** Secrets leave the server only for those who may change them. */
function seenConstants(call: Call, constants: readonly Constant[]): readonly Constant[] {
  return roleReaches(membershipOf(call).role, 'analyst') ? constants : masked(constants);
}

function requirementOf(id: ArtefactId): RequirementId {
  const parsed = requirementIdSchema.safeParse(id);
  if (!parsed.success) throw new Refused({ code: 'kind_mismatch', id, kind: 'requirement' });
  return parsed.data;
}

async function enter(call: Call, personId: string): Promise<ResponseOf<'signIn'>> {
  call.session.set(await startSession(call.work, personId));
  const { Person } = modelsOf(call.work.db);
  const person = await Person.findByPk(personId, { transaction: call.work.transaction, rejectOnEmpty: true });
  return describeSession(call.work, { id: person.id, name: person.name, email: person.email, administrator: person.administrator });
}

function requireIfMatch(call: Call): number {
  if (call.ifMatch !== null) return call.ifMatch;
  throw new Refused({ code: 'request_invalid', issues: [{ path: 'If-Match', message: 'must name the version the save starts from' }] });
}

/** `gap,linked` as standings; unknown words are dropped, and nothing known means nothing found. */
function parseStandings(text: string): Standing[] {
  const words = text.split(',');
  return STANDINGS.filter((s) => words.includes(s));
}
