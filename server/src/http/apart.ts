import { STANDINGS, type CoverageReport, type Standing } from '@caderno/core/coverage';
import type { FrozenCoverage, Operation, ResponseOf } from '@caderno/contract';
import { readFile } from 'node:fs/promises';
import { keepAttachment, listBroken, readAttachment } from '../artefacts/index.ts';
import { checkSeal, exportComparison, takeBaseline } from '../baselines/index.ts';
import { isUpToDate, readRowsSince } from '../coverage/index.ts';
import { inSnapshot, inTransaction } from '../database/index.ts';
import { exportQuestions } from '../exchange/index.ts';
import { reportOf } from './report.ts';
import { bendsOf, figuresNow, trend } from './trend.ts';
import { exportHandOff, handOff, previewHandOff, returned } from './handOffs.ts';
import { countInbox, deliver, readInbox, type Reader } from '../inbox/index.ts';
import { readChangesSince, readHeads } from '../log/index.ts';
import { mailingOf, sendTrialMail } from '../mail/index.ts';
import { acceptInvitation, addMember, changeEmail, changeName, changePassword, describeSession, forgetPassword, personOfSession, resetPassword, setUp, signIn, startSession } from '../people/index.ts';
import { findAdditions, measureSuite, readCandidates, readShowing, readSuiteCells, type Measuring } from '../suites/index.ts';
import { findDefects } from '../tracker/index.ts';
import { NAMES, sendName } from '../versions/index.ts';
import { readServerState } from '../upkeep/index.ts';
import { savedBody, type SavedBody } from './body.ts';
import { ask } from './asked.ts';
import { actorOf, membershipOf, personOf, type Admitted } from './context.ts';
import type { Input } from './request.ts';
import { checkStories, comesAlong, describeAgain, describeCasesAgain, exportBasisFile, exportCasesFile, exportDesignFile, exportFeatureFiles, exportFolderFile, projectFromFolder, preview, previewCases, rememberFeatures, run, upload, uploadCases, uploadDesign, uploadFeatures, uploadStories } from './imports.ts';

/**
 * A handler that holds no transaction: it works or waits for a file, a thread, another service or a password. `saved`
 * is the body of an operation that takes bytes.
 */
export type ApartHandler<N extends Operation> = (input: Input<N>, call: Admitted, saved: SavedBody | null) => Promise<ResponseOf<N>>;

/** Whom it waits with: questions are many and short, files few and long. */
interface Apart<N extends Operation> {
  readonly line: 'questions' | 'files';
  readonly handle: ApartHandler<N>;
}

const question = <N extends Operation>(handle: ApartHandler<N>): Apart<N> => ({ line: 'questions', handle });
const file = <N extends Operation>(handle: ApartHandler<N>): Apart<N> => ({ line: 'files', handle });

/** The operations that hold nothing while they work, in a table by their names. */
export const apartHandlers = {
  signIn: question<'signIn'>(async ({ body }, call) => enter(call, await signIn({ db: call.parts.db, demoSignIn: call.parts.demoSignIn, address: call.remote, agent: call.agent }, body))),
  setUp: question<'setUp'>(async ({ body }, call) => {
    const person = await setUp(call.parts.db, body);
    return enter(call, { token: await inTransaction(call.parts.db, (work) => startSession(work, person, call.agent)) });
  }),
  resetPassword: question<'resetPassword'>(async ({ body }, call) => enter(call, await resetPassword(call.parts.db, body, call.agent))),
  changePassword: question<'changePassword'>(async ({ body }, call) => {
    await changePassword(call.parts.db, personOf(call), call.session.token, call.remote, body);
    return inTransaction(call.parts.db, (work) => describeSession(work, call.person, call.parts));
  }),
  acceptInvitation: question<'acceptInvitation'>(async ({ body }, call) => enter(call, await acceptInvitation(call.parts.db, body, call.agent))),
  forgetPassword: question<'forgetPassword'>(async ({ body }, call) => {
    await forgetPassword(call.parts.db, mailingOf(call.parts), body.email, call.remote);
    return {};
  }),
  changeName: question<'changeName'>(async ({ body: { name } }, call) => {
    const person = personOf(call);
    const { db, jobs } = call.parts;
    await jobs.start();
    await inTransaction(db, async (work) => {
      for (const projectId of await changeName(work, person, name)) await sendName(work, jobs, { projectId, personId: person.id, at: call.parts.now(), before: person.name, name });
    });
    jobs.wake(NAMES);
    return inTransaction(call.parts.db, (work) => describeSession(work, { ...person, name }, call.parts));
  }),
  changeEmail: question<'changeEmail'>(async ({ body }, call) => {
    await changeEmail(call.parts.db, mailingOf(call.parts), personOf(call), call.remote, body);
    return {};
  }),
  sendTrialMail: question<'sendTrialMail'>(async (_, call) => {
    await sendTrialMail(call.parts.mailServer, personOf(call));
    return {};
  }),
  addMember: question<'addMember'>(({ body }, call) => addMember(call.parts.db, personOf(call), call.parts.demoSignIn, membershipOf(call).projectId, body)),

  readServerState: question<'readServerState'>((_, call) => {
    const { feed, version, startedAt, db } = call.parts;
    return inTransaction(db, (work) => readServerState(work, { version, startedAt: startedAt.toISOString(), people: feed.streams.people, pages: feed.streams.count }, call.parts.mail));
  }),

  // The coverage keeper holds all cases, and a thread of its own to look through them.
  findRuns: question<'findRuns'>(({ body }, call) => ask(call, { kind: 'runs', ...body })),
  readAlike: question<'readAlike'>(async (_, call) => {
    const { search, runs, cases } = await ask(call, { kind: 'alike' });
    return { search, runs: runs.map((r) => ({ length: r.length, places: r.places.map((p) => ({ id: p.id, steps: [...p.steps] })) })), cases: [...cases] };
  }),
  readPhrases: question<'readPhrases'>((_, call) => call.parts.phrasebooks.phrases(membershipOf(call).projectId)),
  readWrittenTwice: question<'readWrittenTwice'>((_, call) => call.parts.phrasebooks.writtenTwice(membershipOf(call).projectId)),
  findPhraseUses: question<'findPhraseUses'>(({ body }, call) => call.parts.phrasebooks.uses(membershipOf(call).projectId, body.keys)),
  readCoverage: question<'readCoverage'>(async (_, call) => {
    const report = await ask(call, { kind: 'report' });
    return { ...report, broken: await inTransaction(call.parts.db, (work) => listBroken(work, membershipOf(call).projectId)) };
  }),
  takeBaseline: question<'takeBaseline'>(({ body }, call) =>
    takeBaseline(call.parts.db, actorOf(call), body, async () => frozenCoverage(await ask(call, { kind: 'report' }))),
  ),
  exportComparison: file<'exportComparison'>(async ({ params, query }, call) => {
    const now = query.to === undefined ? frozenCoverage(await ask(call, { kind: 'report' })) : null;
    return inTransaction(call.parts.db, (work) => exportComparison(work, membershipOf(call).projectId, params.baseline, query, now));
  }),
  previewHandOff: file<'previewHandOff'>(({ body }, call) => previewHandOff(call, body)),
  makeHandOff: file<'makeHandOff'>(({ body }, call) => handOff(call, body)),
  readReturned: file<'readReturned'>(({ params, query }, call, saved) => returned(call, params.handOff, query.name, savedBody(saved).path)),
  exportHandOff: file<'exportHandOff'>(({ params, query }, call) => exportHandOff(call, params.handOff, query)),
  checkBaseline: question<'checkBaseline'>(({ params }, call) => checkSeal(call.parts.db, membershipOf(call).projectId, params.baseline)),
  listItems: question<'listItems'>(async ({ query }, call) => {
    const { limit, standing, ...filter } = query;
    const { items, total } = await ask(call, { kind: 'items', filter: { ...filter, standings: standing === undefined ? undefined : parseStandings(standing) }, limit });
    return { items: [...items], total };
  }),
  measureSuite: question<'measureSuite'>(({ body }, call) => measureSuite(measuring(call), body)),
  readShowing: question<'readShowing'>(({ body }, call) => readShowing(measuring(call), body)),
  readCandidates: question<'readCandidates'>(({ body }, call) => readCandidates(measuring(call), body)),
  findAdditions: question<'findAdditions'>(({ body }, call) => {
    const { entries, configurations, ...missed } = body;
    return findAdditions(measuring(call), { entries, configurations }, missed);
  }),
  readMatrix: question<'readMatrix'>(({ query }, call) => (query.across === 'covering' ? ask(call, { kind: 'cells' }) : readSuiteCells(measuring(call)))),
  readFigures: question<'readFigures'>((_, call) => figuresNow(call)),
  readReport: question<'readReport'>(({ query }, call) => reportOf(call, query.since ?? null)),
  readTrend: question<'readTrend'>((_, call) => trend(call)),
  readBends: question<'readBends'>(({ params }, call) => bendsOf(call, params.revision)),
  countTrend: file<'countTrend'>((_, call) => call.parts.trend.count(membershipOf(call).projectId, call.parts.now())),
  readSuites: question<'readSuites'>((_, call) => call.parts.suiteLines.read(measuring(call))),
  readCoverageRows: question<'readCoverageRows'>(async ({ query }, call) => {
    const { projectId } = membershipOf(call);
    if (!(await inTransaction(call.parts.db, (work) => isUpToDate(work, projectId)))) await ask(call, { kind: 'catchUp' });
    return inSnapshot(call.parts.db, (work) => readRowsSince(work, projectId, query.since ?? null));
  }),
  readHeads: question<'readHeads'>(({ query }, call) => inSnapshot(call.parts.db, (work) => readHeads(work, membershipOf(call).projectId, query.after ?? null))),
  readChanges: question<'readChanges'>(({ query }, call) => inSnapshot(call.parts.db, (work) => readChangesSince(work, membershipOf(call).projectId, query.since))),

  readInbox: question<'readInbox'>(async ({ query }, call) => {
    const reader = await delivered(call);
    return inTransaction(call.parts.db, (work) => readInbox(work, reader, query));
  }),
  countInbox: question<'countInbox'>(async (_, call) => {
    const reader = await delivered(call);
    return inTransaction(call.parts.db, (work) => countInbox(work, reader));
  }),

  keepAttachment: question<'keepAttachment'>(async ({ query }, call, saved) => {
    const bytes = await readFile(savedBody(saved).path);
    const { db, files, now } = call.parts;
    return keepAttachment(db, files, membershipOf(call).projectId, query.name, bytes, now());
  }),
  readAttachment: question<'readAttachment'>(({ params, query }, call) => readAttachment(call.parts.db, call.parts.files, membershipOf(call).projectId, params.attachment, query.name ?? '')),
  uploadImport: file<'uploadImport'>(({ query }, call, saved) => upload(call, query.name, savedBody(saved).path)),
  fetchStories: file<'fetchStories'>((_, call) => uploadStories(call)),
  rereadImport: file<'rereadImport'>(({ params, body }, call) => describeAgain(call, params.import, body.reading)),
  previewImport: file<'previewImport'>(({ params, body }, call) => preview(call, params.import, body.mapping, body.reading)),
  uploadCases: file<'uploadCases'>(({ query }, call, saved) => uploadCases(call, query.name, savedBody(saved).path)),
  rereadCases: file<'rereadCases'>(({ params, body }, call) => describeCasesAgain(call, params.import, body.reading)),
  previewCases: file<'previewCases'>(({ params, body }, call) => previewCases(call, params.import, body)),
  runCases: file<'runCases'>(({ params, body }, call) => run(call, params.import, { ...body, into: 'case' })),
  exportCases: file<'exportCases'>(async ({ body }, call) => {
    if (body.figures) await ask(call, { kind: 'catchUp' });
    return exportCasesFile(call, body);
  }),
  readAlong: file<'readAlong'>(({ body }, call) => comesAlong(call, body)),
  exportDesign: file<'exportDesign'>(({ body }, call) => exportDesignFile(call, body)),
  uploadDesign: file<'uploadDesign'>(({ query }, call, saved) => uploadDesign(call, query.name, savedBody(saved).path)),
  exportFolder: file<'exportFolder'>(({ params }, call) => exportFolderFile(call, params.baseline)),
  createProjectFromFolder: file<'createProjectFromFolder'>(({ query }, call, saved) => projectFromFolder(call, query, savedBody(saved).path)),
  runDesign: file<'runDesign'>(({ params, body }, call) => run(call, params.import, { ...body, into: 'design' })),
  exportFeatures: file<'exportFeatures'>(({ body }, call) => exportFeatureFiles(call, body)),
  uploadFeatures: file<'uploadFeatures'>(({ query }, call, saved) => uploadFeatures(call, query.name, savedBody(saved).path)),
  rememberFeatures: file<'rememberFeatures'>((_, call, saved) => rememberFeatures(call, savedBody(saved).path)),
  runFeatures: file<'runFeatures'>(({ params, body }, call) => run(call, params.import, { ...body, into: 'feature' })),
  runImport: file<'runImport'>(({ params, body }, call) => run(call, params.import, body)),
  exportBasis: file<'exportBasis'>(async ({ query }, call) => exportBasisFile(call, query, query.figures === 'yes' ? await ask(call, { kind: 'report' }) : null)),
  exportQuestions: file<'exportQuestions'>(async ({ query }, call) => {
    const heldUp = await ask(call, { kind: 'heldUp' });
    return inTransaction(call.parts.db, (work) => exportQuestions(work, membershipOf(call).projectId, query.format, query.status, heldUp));
  }),
  checkTracker: file<'checkTracker'>((_, call) => checkStories(call)),
  findDefects: file<'findDefects'>(({ query }, call) => findDefects(call.parts.db, membershipOf(call).projectId, query.words, call.parts.outsideHosts)),
} as const;

function frozenCoverage({ counts, cases, instances, minutes, unanalysed }: CoverageReport): FrozenCoverage {
  return { counts, cases, instances, minutes, unanalysed: unanalysed.length };
}

/** Whose inbox it is, once it has come to now: nobody may have had a page open when something changed. */
async function delivered(call: Admitted): Promise<Reader> {
  const { projectId } = membershipOf(call);
  await deliver(call.parts.db, projectId);
  return { projectId, personId: personOf(call).id };
}

function measuring(call: Admitted): Measuring {
  return {
    db: call.parts.db,
    projectId: membershipOf(call).projectId,
    now: call.parts.now().getTime(),
    chosen: (choices) => ask(call, { kind: 'chosen', choices }),
    cells: (choices) => ask(call, { kind: 'choiceCells', choices }),
    matrix: (choice) => ask(call, { kind: 'matrix', choice }),
    asked: (asked) => ask(call, { kind: 'asked', asked }),
    additions: (choice, missed) => ask(call, { kind: 'additions', choice, missed }),
  };
}

export type ApartOperation = keyof typeof apartHandlers;

export function isApart(name: Operation): name is ApartOperation {
  return name in apartHandlers;
}

/** Starts the session in the browser and tells it who it is. */
async function enter(call: Admitted, { token }: { readonly token: string }): Promise<ResponseOf<'signIn'>> {
  call.session.set(token);
  return inTransaction(call.parts.db, async (work) => describeSession(work, await personOfSession(work, token, call.parts.demoSignIn), call.parts));
}

/** `gap,linked` as standings; unknown words are dropped, and nothing known means nothing found. */
function parseStandings(text: string): Standing[] {
  const words = text.split(',');
  return STANDINGS.filter((s) => words.includes(s));
}
