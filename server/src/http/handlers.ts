import type { Standing } from '@caderno/core/coverage';
import { STANDINGS } from '@caderno/core/coverage';
import type { BodyOf, Operation, ParamsOf, QueryOf, ResponseOf } from '@caderno/contract';
import { createArtefact, describeArtefact, dropDraft, findArtefact, keepDraft, moveRequirement, readArtefact, saveArtefact, setState } from '../artefacts/index.ts';
import { modelsOf } from '../database/index.ts';
import { readDesign } from '../coverage/index.ts';
import { find, listByQuery } from '../find/index.ts';
import { addMember, checkSignIn, describeSession, endSession, listMembers, refuseTooManyFailures, setUp, startSession } from '../people/index.ts';
import { createProject, readProject } from '../projects/index.ts';
import { Refused } from '../refused.ts';
import { listChanges, listVersions, readVersion, undoChange } from '../versions/index.ts';
import { commanderOf, membershipOf, personOf, type Call } from './context.ts';

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

  listArtefacts: ({ query }, call) => listByQuery(call.work, membershipOf(call).projectId, query.kind, query.query),
  find: ({ query }, call) => find(call.work, membershipOf(call).projectId, query.words),
  createArtefact: async ({ body }, call) => describeArtefact(call.work, personOf(call).id, await createArtefact(call.work, commanderOf(call), body)),
  readArtefact: ({ params }, call) => readArtefact(call.work, membershipOf(call).projectId, personOf(call).id, params.id),
  saveArtefact: async ({ params, body }, call) => {
    const row = await saveArtefact(call.work, commanderOf(call), params.id, requireIfMatch(call), body, body.note);
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

  listChanges: ({ query }, call) => listChanges(call.work, membershipOf(call).projectId, query),
  undoChange: ({ params }, call) => undoChange(call.work, commanderOf(call), params.change),

  readCoverage: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'report' }),
  listItems: async ({ query }, call) => {
    const { limit, standing, ...filter } = query;
    const question = { kind: 'items' as const, filter: { ...filter, standings: standing === undefined ? undefined : parseStandings(standing) }, limit };
    const { items, total } = await call.parts.coverage.ask(membershipOf(call).projectId, question);
    return { items: [...items], total };
  },
  readCaseMarks: (_, call) => call.parts.coverage.ask(membershipOf(call).projectId, { kind: 'caseMarks' }),
  readDesign: ({ query }, call) => readDesign(call.work, membershipOf(call).projectId, query),
};

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
