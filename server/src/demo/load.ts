import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Sequelize } from 'sequelize';
import { parse } from 'yaml';
import type { z } from 'zod';
import type { ArtefactId, FeatureId } from '@caderno/core/artefacts';
import type { KindAndContent, NewArtefact, TrackerConnection } from '@caderno/contract';
import type { Attachment } from '@caderno/core/attachments';
import type { CaseContent } from '@caderno/core/cases';
import { answered, withdrawnQuestion, type QuestionContent } from '@caderno/core/basis';
import { coverageReport } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { folderOf, ownKindId, type FeatureFile } from '@caderno/core/scenarios';
import { GUESS_ALL } from '@caderno/core/exchange';
import { attachmentOf, createArtefact, findArtefact, idOfRow, noteAttachment, readContent, readHeads, saveArtefact, setState, type Actor } from '../artefacts/index.ts';
import { freeze } from '../baselines/index.ts';
import { saveSettings } from '../basis/index.ts';
import { CoverageIndexes } from '../coverage/index.ts';
import { inTransaction, modelsOf, type UnitOfWork } from '../database/index.ts';
import { saveQuery, type Asker } from '../lists/index.ts';
import { fillInboxes } from './inbox.ts';
import { reviewActs, reviewsDocument } from './reviews.ts';
import { remarksDocument, sayRemarks } from './remarks.ts';
import { bringBackNow, handOffNow, handOffsDocument } from './handOffs.ts';
import { suiteContent, suitesDocument } from './suites.ts';
import { createDemoPerson, joinProject } from '../people/index.ts';
import type { Files } from '../files/index.ts';
import { decode, guessedMapping, importFeatures, importFile, readEntries, readFor } from '../exchange/index.ts';
import { createProject, readSettings } from '../projects/index.ts';
import type { SecretBox } from '../secrets/index.ts';
import { STORIES_FILE, storiesFile } from '../tracker/index.ts';
import { caseContent, conditionContent, dataSetContent, ownFields, questionContent, requirementContent, sharedContent, withDemoCovers, withDemoRequirements, withDemoData, type FindUsable, type Made, type MadeCase, type MadeCondition, type MadeDataSet, type MadeRequirement, type MadeShared } from './contents.ts';
import {
  baselinesDocument, casesDocument, conditionsDocument, dataSetsDocument, featuresDocument, historyDocument, importsDocument, projectDocument, questionsDocument, requirementsDocument, settingsDocument, sharedDocument, storyboardDocument, type DemoBaseline, type DemoCase, type DemoEvent, type DemoFeatures, type DemoImport, type DemoQuestion, type DemoRequirement, type DemoSettings,
} from './documents.ts';

const DAY_MS = 86_400_000;
const WORKING_MINUTES = 480;

/** The artefacts made so far, by title: how the demo's documents name each other. */
interface MadeSoFar {
  readonly requirement: Map<string, MadeRequirement>;
  readonly condition: Map<string, MadeCondition>;
  readonly case: Map<string, MadeCase>;
  readonly shared: Map<string, MadeShared>;
  readonly dataSet: Map<string, MadeDataSet>;
}

/** Something that was done so many days ago. */
interface Act {
  readonly daysAgo: number;
  readonly run: () => Promise<void>;
}

interface Loading {
  readonly work: UnitOfWork;
  readonly box: SecretBox;
  readonly files: Files;
  /** Where the documents and the files beside them are. */
  readonly folder: string;
  readonly projectId: string;
  readonly now: Date;
  readonly people: ReadonlyMap<string, string>;
  readonly made: MadeSoFar;
  /** The day that is being loaded, and the commands on it so far: they are spread over its working hours. */
  day: { readonly daysAgo: number; done: number };
}

/** Loads the demo project of a folder through the services a person's edits go through, dated back from `now`. All or nothing. */
export async function loadDemo(db: Sequelize, box: SecretBox, files: Files, folder: string, now: Date, trackerAddress: string | null = null): Promise<string> {
  const project = await readDocument(folder, 'project.yaml', projectDocument);
  const requirements = await readDocument(folder, 'requirements.yaml', requirementsDocument);
  const conditions = await readDocument(folder, 'conditions.yaml', conditionsDocument);
  const cases = await readDocument(folder, 'cases.yaml', casesDocument);
  const shared = await readDocument(folder, 'shared.yaml', sharedDocument);
  const dataSets = await readDocument(folder, 'data-sets.yaml', dataSetsDocument);
  const features = await readDocument(folder, 'features.yaml', featuresDocument);
  const history = await readDocument(folder, 'history.yaml', historyDocument);
  const imports = await readDocument(folder, 'imports.yaml', importsDocument);
  const questions = await readDocument(folder, 'questions.yaml', questionsDocument);
  const remarks = await readDocument(folder, 'remarks.yaml', remarksDocument);
  const reviews = await readDocument(folder, 'reviews.yaml', reviewsDocument);
  const baselines = await readDocument(folder, 'baselines.yaml', baselinesDocument);
  const suites = await readDocument(folder, 'suites.yaml', suitesDocument);
  const handOffs = await readDocument(folder, 'hand-offs.yaml', handOffsDocument);
  const indexes = new CoverageIndexes();
  const written = await readDocument(folder, 'settings.yaml', settingsDocument);
  const settings = { ...written, tracker: { ...written.tracker, address: trackerAddress ?? written.tracker.address } };
  const fields = ownFields(written);
  await inTransaction(db, async (work) => {
    const loading = await beginProject(work, box, files, folder, project, now);
    const { made } = loading;
    const acts: Act[] = [
      ...imports.map((demo) => ({ ...demo, run: () => bringIn(loading, folder, demo, settings.tracker) })),
      { daysAgo: settings.daysAgo, run: () => applySettings(loading, settings, fields) },
      ...requirements.map((demo) => ({ ...demo, run: () => addRequirement(loading, demo, fields) })),
      ...conditions.map((demo) => ({
        ...demo,
        run: async () => {
          const content = conditionContent(demo, (title) => find(made.requirement, title), dateOf(loading, demo.daysAgo).toISOString());
          made.condition.set(demo.title, await make(loading, demo, { kind: 'condition', content }, content));
        },
      })),
      ...shared.map((demo) => ({
        ...demo,
        run: async () => {
          const content = sharedContent(demo, usable(made));
          made.shared.set(demo.title, await make(loading, demo, { kind: 'shared', content }, content));
        },
      })),
      ...dataSets.map((demo) => ({
        ...demo,
        run: async () => {
          const content = dataSetContent(demo, (title) => find(made.condition, title));
          made.dataSet.set(demo.title, await make(loading, demo, { kind: 'dataSet', content }, content));
        },
      })),
      ...cases.map((demo) => ({
        ...demo,
        run: async () => {
          const written = withDemoData(caseContent(demo, (title) => find(made.condition, title), usable(made), fields), demo, (title) => find(made.dataSet, title));
          const content = await withPictures(loading, demo, { ...written, attachments: await attached(loading, demo) });
          made.case.set(demo.title, await make(loading, demo, { kind: 'case', content }, content));
        },
      })),
      ...features.map((demo) => ({ ...demo, run: () => bringFeatures(loading, folder, demo) })),
      ...history.map((event) => ({ ...event, run: () => replay(loading, event) })),
      ...questions.flatMap((demo) => questionActs(loading, demo)),
      ...suites.map((demo) => ({ ...demo, run: async () => void (await createArtefact(work, actor(loading, demo), { kind: 'suite', content: await suiteContent(work, loading.projectId, demo, (title) => find(made.case, title).id) })) })),
      ...baselines.map((demo) => ({ ...demo, run: () => freezeNow(loading, demo, indexes) })),
      ...handOffs.map((demo) => ({ ...demo, run: () => handOffNow(work, actor(loading, demo), demo) })),
      ...handOffs.flatMap((handOff) => handOff.returned.map((demo) => ({ ...demo, run: () => bringBackNow(work, { ...actor(loading, { by: handOff.by, daysAgo: demo.daysAgo }), role: 'lead' }, handOff.name, demo) }))),
      ...reviews.flatMap((demo) => reviewActs(work, demo, { actorOf: (by, daysAgo) => actor(loading, { by, daysAgo }), personOf: (name) => find(loading.people, name), idOf: (kind, title) => find<{ readonly id: ArtefactId }>(made[kind], title).id, dayOf: (daysAgo) => dateOf(loading, daysAgo).toISOString().slice(0, 10) })),
      ...remarks.map((demo) => ({ daysAgo: Math.min(demo.daysAgo, ...demo.answers.map((a) => a.daysAgo)), run: () => sayRemarks(work, demo, remarked(loading, demo.on), (by, daysAgo) => ({ ...actor(loading, { by, daysAgo }), role: 'lead' })) })),
    ];
    // As it happened: the journal must read in the order of its dates.
    for (const act of acts.toSorted((x, y) => y.daysAgo - x.daysAgo)) await act.run();
    await fillInboxes(work, loading.projectId, now);
  });
  return project.name;
}

/** The case with pictures at its steps, kept as one would add them. */
async function withPictures(loading: Loading, demo: DemoCase, content: CaseContent): Promise<CaseContent> {
  const steps = [...content.steps];
  for (const [number, file] of demo.pictures) {
    const step = steps[number - 1];
    if (step?.kind !== 'step') throw new Error(`A picture stands at a step of '${demo.title}': expected one as number ${number}`);
    steps[number - 1] = { ...step, attachments: [...step.attachments, ...(await attached(loading, { files: [file], daysAgo: demo.daysAgo }))] };
  }
  return { ...content, steps };
}

/** Files beside the documents, kept as one would attach them. */
async function attached(loading: Loading, { files, daysAgo }: { readonly files: readonly string[]; readonly daysAgo: number }): Promise<Attachment[]> {
  const all: Attachment[] = [];
  for (const name of files) {
    const bytes = await readFile(join(loading.folder, name));
    const attachment = await attachmentOf(name, bytes);
    await loading.files.keep(bytes);
    await noteAttachment(loading.work, loading.projectId, attachment, dateOf(loading, daysAgo));
    all.push(attachment);
  }
  return all;
}

function usable(made: MadeSoFar): FindUsable {
  return (title) => made.shared.get(title) ?? find(made.case, title);
}

async function readDocument<T>(folder: string, name: string, schema: z.ZodType<T>): Promise<T> {
  return schema.parse(parse(await readFile(join(folder, name), 'utf8')));
}

async function beginProject(work: UnitOfWork, box: SecretBox, files: Files, folder: string, project: z.infer<typeof projectDocument>, now: Date): Promise<Loading> {
  const people = new Map<string, string>();
  for (const person of project.people) people.set(person.name, await createDemoPerson(work, { ...person, administrator: person.installation }));
  const founder = project.people.find((p) => p.installation);
  if (founder === undefined) throw new Error('The demo has an administrator of the installation: expected one, got none');
  const { id } = await createProject(work, find(people, founder.name), project);
  for (const person of project.people) if (person !== founder) await joinProject(work, id, find(people, person.name), person.role);
  return { work, box, files, folder, projectId: id, now, people, made: { requirement: new Map(), condition: new Map(), case: new Map(), shared: new Map(), dataSet: new Map() }, day: { daysAgo: Number.NaN, done: 0 } };
}

/** Imports a file as a person would who takes the mapping that is offered. */
async function bringIn(loading: Loading, folder: string, demo: DemoImport, tracker: TrackerConnection): Promise<void> {
  const file = 'file' in demo ? { name: demo.file, bytes: await readFile(join(folder, demo.file)) } : { name: STORIES_FILE, bytes: await earlierStories(folder, demo.stories, tracker) };
  const document = await decode(file, GUESS_ALL);
  const mapping = await guessedMapping(loading.work, loading.projectId, file.name, document);
  await importFile(loading.work, actor(loading, demo), readEntries(file.name, document, mapping, await readFor(loading.work, loading.projectId)), { mapping, choices: {} });
  await readImported(loading);
}

/** Brings files of features, and says which requirements they are written for. */
async function bringFeatures(loading: Loading, folder: string, demo: DemoFeatures): Promise<void> {
  const { work, projectId, made } = loading;
  const files: FeatureFile[] = [];
  for (const path of demo.files) files.push({ path, text: await readFile(join(folder, 'features', path), 'utf8') });
  await importFeatures(work, actor(loading, demo), { files }, `${folderOf(demo.files[0] ?? '')}/`, { choices: {} });
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId, kind: 'feature' }, transaction: work.transaction });
  for (const row of rows) {
    const head = await readContent(work, row, row.head);
    if (head.kind !== 'feature' || !demo.files.includes(head.content.path)) continue;
    const covering = withDemoCovers(idOfRow(row) as FeatureId, head.content, demo, (title) => find(made.condition, title));
    const content = { ...withDemoRequirements(covering, demo, (title) => find(made.requirement, title)), module: demo.module };
    await saveArtefact(work, actor(loading, demo), idOfRow(row), row.head, { kind: 'feature', content }, '');
  }
}

/** The tracker's stories as they were when the demo imported them. */
async function earlierStories(folder: string, name: string, { address, project }: TrackerConnection): Promise<Uint8Array> {
  const { stories } = await readDocument(folder, name, storyboardDocument);
  const known = stories.filter((s) => !s.new);
  return storiesFile(
    known.map(({ key, title, description, acceptance, labels, status, earlier }) => ({
      key,
      title: earlier?.title ?? title,
      description: earlier?.description ?? description,
      criteria: earlier?.acceptance ?? acceptance,
      labels,
      status,
      link: `${address}/projects/${project}/stories/${key}`,
    })),
  );
}

async function readImported({ work, projectId, made }: Loading): Promise<void> {
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId, kind: 'requirement' }, transaction: work.transaction });
  const heads = await readHeads(work, rows);
  for (const row of rows) {
    const head = heads.get(row.id);
    if (head?.kind === 'requirement' && !made.requirement.has(row.title)) made.requirement.set(row.title, { id: `R-${row.number}`, version: row.head, content: head.content });
  }
}

async function applySettings(loading: Loading, demo: DemoSettings, fields: readonly OwnField[]): Promise<void> {
  const { version, settings } = await readSettings(loading.work, loading.projectId);
  const glossary = demo.glossary.map((term, i) => ({ id: `t${i + 1}`, ...term }));
  const configurations = demo.configurations.map(({ name, factors }, i) => ({ id: `k${i + 1}`, name, factors: Object.entries(factors).map(([factor, value]) => ({ name: factor, value })) }));
  const environment = { factors: Object.entries(demo.factors).map(([name, values], i) => ({ id: `f${i + 1}`, name, values })), rules: demo.rules };
  const idOf = (name: string): string => {
    const found = configurations.find((c) => c.name === name);
    if (found === undefined) throw new Error(`A constant has values in configurations of the project: expected '${name}'`);
    return found.id;
  };
  const constants = demo.constants.map(({ in: others, ...constant }, i) => ({ id: `c${i + 1}`, ...constant, others: Object.fromEntries(Object.entries(others).map(([name, value]) => [idOf(name), value])) }));
  const valueKinds = Object.entries(demo.valueKinds).map(([name, pattern], i) => ({ id: ownKindId(`v${i + 1}`), name, pattern }));
  const scenarioExecution = { ...settings.scenarioExecution, minutes: demo.scenarioMinutes };
  await saveSettings(loading.work, loading.box, actor(loading, demo), 'lead', version, { ...settings, glossary, constants, environment, configurations, fields, valueKinds, rulesOff: demo.rulesOff, tracker: demo.tracker, scenarioExecution, agreement: demo.agreement });
  const asker: Asker = { projectId: loading.projectId, personId: actor(loading, demo).personId, role: 'lead' };
  for (const query of demo.queries) await saveQuery(loading.work, asker, randomUUID(), { ...query, everybody: true });
}

/** A question is raised, and later answered or withdrawn. */
function questionActs(loading: Loading, demo: DemoQuestion): Act[] {
  const day = (daysAgo: number): string => dateOf(loading, daysAgo).toISOString();
  let raised: { readonly id: ArtefactId; readonly content: QuestionContent } | null = null;
  const raise = async (): Promise<void> => {
    const { requirement, condition } = loading.made;
    const content = { ...questionContent(demo, (title) => find(requirement, title), (title) => find(condition, title), day), attachments: await attached(loading, demo) };
    raised = { id: idOfRow(await createArtefact(loading.work, actor(loading, demo), { kind: 'question', content })), content };
  };
  const later = async (entry: { readonly by: string; readonly daysAgo: number }, change: (content: QuestionContent) => QuestionContent): Promise<void> => {
    if (raised === null) throw new Error(`'${demo.title}' is settled after it was raised: expected fewer days ago`);
    await saveArtefact(loading.work, actor(loading, entry), raised.id, 1, { kind: 'question', content: change(raised.content) }, '');
  };
  const { answer, withdrawn } = demo;
  return [
    { daysAgo: demo.daysAgo, run: raise },
    ...(answer === undefined ? [] : [{ daysAgo: answer.daysAgo, run: () => later(answer, (content) => answered(content, answer.text, answer.by, day(answer.daysAgo))) }]),
    ...(withdrawn === undefined ? [] : [{ daysAgo: withdrawn.daysAgo, run: () => later(withdrawn, withdrawnQuestion) }]),
  ];
}

async function addRequirement(loading: Loading, demo: DemoRequirement, fields: readonly OwnField[]): Promise<void> {
  const below = demo.below === undefined ? null : find(loading.made.requirement, demo.below).id;
  const content = { ...requirementContent(demo, fields), attachments: await attached(loading, demo) };
  loading.made.requirement.set(demo.title, await make(loading, demo, { kind: 'requirement', content, parent: below }, content));
}

async function make<Id extends ArtefactId, C>(loading: Loading, entry: { readonly by: string; readonly daysAgo: number }, artefact: NewArtefact, content: C): Promise<Made<Id, C>> {
  const row = await createArtefact(loading.work, actor(loading, entry), artefact);
  return { id: idOfRow(row) as Id, version: row.head, content };
}

/** A baseline of everything, with the coverage of that day. */
async function freezeNow(loading: Loading, { name, note, ...entry }: DemoBaseline, indexes: CoverageIndexes): Promise<void> {
  const { work, projectId } = loading;
  const { index, revision } = await indexes.at(work, projectId);
  const { counts, cases, instances, minutes, unanalysed } = coverageReport(index);
  await freeze(work, actor(loading, entry), { name, note, of: { everything: true } }, revision, { counts, cases, instances, minutes, unanalysed: unanalysed.length });
}

async function replay(loading: Loading, event: DemoEvent): Promise<void> {
  const { id } = find<{ readonly id: ArtefactId }>(loading.made[event.kind], event.title);
  const row = await findArtefact(loading.work, loading.projectId, id);
  const head = await readContent(loading.work, row, row.head);
  const value = event.confirm ? await confirmed(loading, head) : head;
  if (event.replace !== undefined || event.confirm) {
    await saveArtefact(loading.work, actor(loading, event), id, row.head, event.replace === undefined ? value : replaced(value, event), event.note);
  }
  if (event.state !== undefined) await setState(loading.work, actor(loading, event), id, event.state);
}

/** The content with one text in it replaced, wherever it stands. */
function replaced(value: KindAndContent, { title, replace }: DemoEvent): KindAndContent {
  const [from, to] = (replace ?? ['', '']).map((text) => JSON.stringify(text).slice(1, -1));
  const text = JSON.stringify(value);
  if (from === undefined || to === undefined || !text.includes(from)) throw new Error(`The history changes words that stand in '${title}': expected '${from ?? ''}'`);
  return JSON.parse(text.replaceAll(from, () => to)) as KindAndContent;
}

/** The content with all its trace links brought up to the versions of today. */
async function confirmed(loading: Loading, value: KindAndContent): Promise<KindAndContent> {
  const up = async <L extends { readonly id: ArtefactId; readonly seenVersion: number }>(link: L): Promise<L> => {
    const target = await findArtefact(loading.work, loading.projectId, link.id);
    return { ...link, seenVersion: target.head };
  };
  switch (value.kind) {
    case 'requirement':
    case 'question':
    case 'shared':
    case 'suite':
      return value;
    case 'dataSet':
      return { kind: value.kind, content: { ...value.content, serves: await inTurn(value.content.serves, up) } };
    case 'condition':
      return { kind: value.kind, content: { ...value.content, requirements: await inTurn(value.content.requirements, up) } };
    case 'feature':
      return { kind: value.kind, content: { ...value.content, requirements: await inTurn(value.content.requirements, up) } };
    case 'case':
      return { kind: value.kind, content: { ...value.content, covers: await inTurn(value.content.covers, up) } };
  }
}

async function inTurn<T>(list: readonly T[], f: (element: T) => Promise<T>): Promise<T[]> {
  const done: T[] = [];
  for (const element of list) done.push(await f(element));
  return done;
}

function actor(loading: Loading, entry: { readonly by: string; readonly daysAgo: number }): Actor {
  return { projectId: loading.projectId, personId: find(loading.people, entry.by), at: dateOf(loading, entry.daysAgo), commandId: null };
}

function remarked({ made }: Loading, on: { readonly case: string } | { readonly requirement: string } | { readonly condition: string }) {
  if ('case' in on) return find(made.case, on.case);
  return 'requirement' in on ? find(made.requirement, on.requirement) : find(made.condition, on.condition);
}

/** A moment of the working day, so many days ago; later ones of a day come later. */
function dateOf(loading: Loading, daysAgo: number): Date {
  if (loading.day.daysAgo !== daysAgo) loading.day = { daysAgo, done: 0 };
  const date = new Date(loading.now.getTime() - daysAgo * DAY_MS);
  date.setUTCHours(9, Math.min(loading.day.done * 7, WORKING_MINUTES), 0, 0);
  loading.day.done += 1;
  return date;
}

function find<T>(map: ReadonlyMap<string, T>, name: string): T {
  const found = map.get(name);
  if (found === undefined) throw new Error(`The demo names only what it made before: expected '${name}'`);
  return found;
}

/** Whether any person is there: on an empty installation the demo may be loaded. */
export async function isEmptyInstallation(db: Sequelize): Promise<boolean> {
  return inTransaction(db, async ({ transaction }) => (await modelsOf(db).Person.count({ transaction })) === 0);
}
