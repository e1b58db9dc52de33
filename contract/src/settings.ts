import { ARTEFACT_KINDS, FIRST_PRIORITIES, type Priority } from '@caderno/core/artefacts';
import { OFF_AT_FIRST, DEFAULT_RISK_SCALE, LONGEST_SCALE, RISKS, SHORTEST_SCALE, WORDING_RULES, type RiskScale, type Term, type WordingRule } from '@caderno/core/basis';
import { EXECUTIONS, LOOK_RULES, isParameterName, type LookRule } from '@caderno/core/cases';
import { EMPTY_ENVIRONMENT, type Environment } from '@caderno/core/configurations';
import type { Configuration, Constant } from '@caderno/core/shared';
import { DEFAULT_MOST_ITEMS } from '@caderno/core/conditions';
import { LONGEST_FIELD_NAME, OWN_FIELD_TYPES, ownQueryName, type OwnField } from '@caderno/core/fields';
import type { AgreementRule } from '@caderno/core/reviews';
import { FIRST_SCENARIO_EXECUTION, isOwnKindName, type OwnValueKind, type ScenarioExecution } from '@caderno/core/scenarios';
import { z } from 'zod';
import { keepersSchema, type Keepers } from './keepers.ts';
import { LIMITS } from './limits.ts';
import { innerIdSchema, ownFieldIdSchema, ownKindIdSchema } from './ids.ts';
import { ownValueSchema } from './kinds/index.ts';
import { isEachOnce } from './once.ts';
import { ROLES, type Role } from './people.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** What a project sets for itself. Every save is an entry of the journal and can be undone. */
export interface ProjectSettings {
  readonly riskScale: RiskScale;
  readonly glossary: readonly Term[];
  /** Rules of weak wording that are switched off. */
  readonly rulesOff: readonly WordingRule[];
  readonly tracker: TrackerConnection | null;
  /** Labels for the depth of testing that a condition belongs to, from shallow to deep. */
  readonly depths: readonly string[];
  /** A condition whose model has more coverage items than this is refused. */
  readonly mostItems: number;
  readonly constants: readonly Constant[];
  /** What is not worth a look in cases. */
  readonly looksOff: readonly LookRule[];
  /** Factors that configurations are made of, and what of them does not go together. */
  readonly environment: Environment;
  readonly configurations: readonly Configuration[];
  /** Names of priorities, the highest first. */
  readonly priorities: readonly Priority[];
  /** Names of modules in their order; those that are not among them come behind, by the alphabet. */
  readonly modules: readonly string[];
  /** Fields of its own, in their order; removed ones too, as versions still hold values of them. */
  readonly fields: readonly OwnField[];
  /** Phrases that steps of scenarios are to be worded with. */
  readonly agreedPhrases: readonly string[];
  /** Kinds of values in steps of scenarios beside texts and numbers; where two meet, the one that comes first is meant. */
  readonly valueKinds: readonly OwnValueKind[];
  /** Which scenarios are run by hand, and what they take. */
  readonly scenarioExecution: ScenarioExecution;
  /** What agreement asks for. */
  readonly agreement: Agreement;
  /** Modules that only some change. */
  readonly keepers: readonly Keepers[];
}

/** What a project asks for before something is agreed. */
export interface Agreement extends AgreementRule {
  /** The least role of those who may agree. */
  readonly role: Role;
  /** Whether whoever edits may also set something to agreed without a review. */
  readonly byHand: boolean;
}

/** How the project reaches its story tracker. */
export interface TrackerConnection {
  readonly kind: (typeof TRACKER_KINDS)[number];
  /** `http://…` or `https://…`, without what the adapter adds. */
  readonly address: string;
  readonly project: string;
}

/** Trackers there is an adapter for. */
export const TRACKER_KINDS = ['storyboard'] as const;

const nonEmpty = (most: number) => textUpTo(most).refine((t) => t !== '', 'must not be empty');
const names = z.array(nonEmpty(60)).min(SHORTEST_SCALE).max(LONGEST_SCALE);
const weight = z.int().min(1).max(1_000);

const riskScaleSchema: z.ZodType<RiskScale> = z
  .strictObject({
    likelihood: names,
    impact: names,
    risks: z.array(z.array(z.enum(RISKS))),
    weights: z.strictObject({ high: weight, medium: weight, low: weight }),
  })
  .refine(({ likelihood, impact, risks }) => risks.length === likelihood.length && risks.every((row) => row.length === impact.length), 'must have a risk for every pair of steps');

const termSchema: z.ZodType<Term> = z.strictObject({ id: innerIdSchema, term: nonEmpty(LIMITS.name), forms: z.array(textUpTo(LIMITS.name)).max(LIMITS.forms), definition: textUpTo(LIMITS.definition) });

/** A name with a value, perhaps another in some configurations. The value of a secret is never among what is answered. */
export const constantSchema: z.ZodType<Constant> = z.strictObject({ id: innerIdSchema, name: textUpTo(80).refine(isParameterName, 'must be a name that can stand between angle brackets'), value: textUpTo(2_000), secret: z.boolean(), description: textUpTo(LIMITS.title), others: z.record(innerIdSchema, textUpTo(2_000)) });

const minutes = z.number().min(0).max(LIMITS.minutes).nullable();
const scenarioExecutionSchema: z.ZodType<ScenarioExecution> = z.strictObject({ tag: textUpTo(LIMITS.name).refine((text) => /^@[^\s@#]+$/u.test(text), 'must be a tag: @ and a name without spaces'), marks: z.enum(EXECUTIONS), minutes: z.strictObject({ byHand: minutes, automated: minutes }) });

/** People who must agree; more are never asked. */
const MOST_NEEDED = 20;
const agreementSchema: z.ZodType<Agreement> = z.strictObject({ needed: z.union([z.literal('all'), z.int().min(1).max(MOST_NEEDED)]), role: z.enum(ROLES), authors: z.boolean(), byHand: z.boolean() });

const valueKindSchema: z.ZodType<OwnValueKind> = z.strictObject({
  id: ownKindIdSchema,
  name: textUpTo(60).refine(isOwnKindName, 'must be a word that means nothing else in a phrase'),
  pattern: trimmedTextUpTo(LIMITS.title),
});

const MOST_FACTORS = 30;
const configurationSchema: z.ZodType<Configuration> = z.strictObject({ id: innerIdSchema, name: nonEmpty(LIMITS.name), factors: z.array(z.strictObject({ name: nonEmpty(LIMITS.name), value: textUpTo(LIMITS.name) })).max(MOST_FACTORS) });

const factorValue = trimmedTextUpTo(LIMITS.name);
const environmentSchema: z.ZodType<Environment> = z.strictObject({
  factors: z.array(z.strictObject({ id: innerIdSchema, name: nonEmpty(LIMITS.name), values: z.array(factorValue).max(LIMITS.choices).refine(isEachOnce, 'must not repeat') })).max(MOST_FACTORS).refine((list) => isEachOnce(list.map((f) => f.id)), 'ids must not repeat').refine((list) => isEachOnce(list.map((f) => f.name)), 'names must not repeat'),
  rules: textUpTo(LIMITS.definition),
});

/** A field that a project has made for itself. */
export const ownFieldSchema: z.ZodType<OwnField> = z.strictObject({
  id: ownFieldIdSchema,
  name: trimmedTextUpTo(LONGEST_FIELD_NAME).refine((name) => ownQueryName(name) !== '', 'must have a letter or a digit'),
  of: z.array(z.enum(ARTEFACT_KINDS)).min(1).refine(isEachOnce, 'must not repeat'),
  type: z.enum(OWN_FIELD_TYPES),
  choices: z.array(z.strictObject({ id: innerIdSchema, name: trimmedTextUpTo(LIMITS.name) })).max(LIMITS.choices).refine((list) => isEachOnce(list.map((c) => c.id)), 'ids must not repeat'),
  required: z.boolean(),
  begins: ownValueSchema.nullable(),
  help: textUpTo(LIMITS.note),
  removed: z.boolean(),
});

/** What a project sets for itself. */
export const projectSettingsSchema: z.ZodType<ProjectSettings> = z.strictObject({
  riskScale: riskScaleSchema,
  glossary: z.array(termSchema).max(LIMITS.terms).refine((terms) => isEachOnce(terms.map((t) => t.id)), 'ids must not repeat'),
  rulesOff: z.array(z.enum(WORDING_RULES)),
  tracker: z.strictObject({ kind: z.enum(TRACKER_KINDS), address: z.url({ protocol: /^https?$/ }).max(LIMITS.address), project: textUpTo(LIMITS.name) }).nullable(),
  depths: z.array(nonEmpty(60)).max(LIMITS.depths).refine(isEachOnce, 'must not repeat'),
  mostItems: z.int().min(100).max(LIMITS.items),
  constants: z.array(constantSchema).max(LIMITS.constants).refine((list) => isEachOnce(list.map((c) => c.id)), 'ids must not repeat'),
  looksOff: z.array(z.enum(LOOK_RULES)),
  environment: environmentSchema,
  configurations: z.array(configurationSchema).max(LIMITS.configurations).refine((list) => isEachOnce(list.map((c) => c.id)), 'ids must not repeat'),
  modules: z.array(trimmedTextUpTo(LIMITS.name)).max(LIMITS.modules).refine(isEachOnce, 'must not repeat'),
  priorities: z.array(trimmedTextUpTo(60)).min(2).max(LIMITS.priorities).refine((list) => isEachOnce(list.map((p) => p.toLowerCase())), 'must not repeat'),
  fields: z.array(ownFieldSchema).max(LIMITS.ownFields).refine((list) => isEachOnce(list.map((f) => f.id)), 'ids must not repeat').refine((list) => isEachOnce(list.filter((f) => !f.removed).map((f) => ownQueryName(f.name))), 'names must not repeat'),
  agreedPhrases: z.array(trimmedTextUpTo(LIMITS.address)).max(LIMITS.agreedPhrases).refine(isEachOnce, 'must not repeat'),
  valueKinds: z.array(valueKindSchema).max(LIMITS.valueKinds).refine((list) => isEachOnce(list.map((k) => k.id)), 'ids must not repeat').refine((list) => isEachOnce(list.map((k) => k.name.toLowerCase())), 'names must not repeat'),
  scenarioExecution: scenarioExecutionSchema,
  agreement: agreementSchema,
  keepers: keepersSchema,
});

/** Of a new project. */
export const DEFAULT_SETTINGS: ProjectSettings = { riskScale: DEFAULT_RISK_SCALE, glossary: [], rulesOff: [...OFF_AT_FIRST], tracker: null, depths: ['smoke', 'core', 'full'], mostItems: DEFAULT_MOST_ITEMS, constants: [], looksOff: [], environment: EMPTY_ENVIRONMENT, configurations: [], priorities: FIRST_PRIORITIES, modules: [], fields: [], agreedPhrases: [], valueKinds: [], scenarioExecution: FIRST_SCENARIO_EXECUTION, agreement: { needed: 1, role: 'reader', authors: false, byHand: true }, keepers: [] };

/** The parts of the settings: what the journal names when they change, each by itself. */
export const SETTINGS_PARTS = Object.keys(DEFAULT_SETTINGS) as (keyof ProjectSettings)[];

const SETTING_WORD: Readonly<Record<keyof ProjectSettings, string>> = { riskScale: 'the risk scale', glossary: 'the glossary', rulesOff: 'the rules of weak wording', tracker: 'the story tracker', depths: 'the depths of testing', mostItems: 'the limit of coverage items', constants: 'the constants', environment: 'what configurations are made of', configurations: 'the configurations', fields: 'the fields of its own', modules: 'the order of the modules', priorities: 'the priorities', looksOff: 'the hints', agreedPhrases: 'the agreed phrases', valueKinds: 'the kinds of values in scenarios', scenarioExecution: 'which scenarios are run by hand', agreement: 'what agreement asks for', keepers: 'who changes which module' };

/** Parts of the settings as a sentence names them, with the constants that stand for another value; one that this release does not know, by its own name. */
export function settingsWords(parts: readonly string[], constants: readonly string[] = []): string {
  const named = constants.length === 0 ? '' : ` (${constants.map((name) => `<${name}>`).join(', ')})`;
  return parts.map((part) => (part in SETTING_WORD ? `${SETTING_WORD[part as keyof ProjectSettings]}${part === 'constants' ? named : ''}` : part)).join(', ');
}

function withOthers(constants: unknown): unknown {
  return z.array(z.looseObject({})).catch([]).parse(constants ?? []).map((constant) => ({ others: {}, ...constant }));
}

/** Settings as they are stored: those stored before a part was known have its default. */
export const storedSettingsSchema: z.ZodType<ProjectSettings> = z.preprocess((stored) => {
  const known = z.record(z.string(), z.unknown()).safeParse(stored);
  if (!known.success) return stored;
  const { depths, mostItems, looksOff, environment, configurations, priorities, modules, fields, agreedPhrases, valueKinds, scenarioExecution, agreement, keepers } = DEFAULT_SETTINGS;
  return { depths, mostItems, looksOff, environment, configurations, priorities, modules, fields, agreedPhrases, valueKinds, scenarioExecution, agreement, keepers, ...known.data, constants: withOthers(known.data.constants) };
}, projectSettingsSchema);

/** Stored settings, and those of their parts that cannot be read: each of these has its default until it is set again. */
export function readStoredSettings(stored: unknown): { readonly settings: ProjectSettings; readonly broken: readonly string[] } {
  const whole = storedSettingsSchema.safeParse(stored);
  if (whole.success) return { settings: whole.data, broken: [] };
  const given = z.record(z.string(), z.unknown()).catch({}).parse(stored);
  let settings = DEFAULT_SETTINGS;
  const broken: string[] = [];
  for (const part of Object.keys(DEFAULT_SETTINGS)) {
    if (given[part] === undefined) continue;
    const next = storedSettingsSchema.safeParse({ ...settings, [part]: given[part] });
    if (next.success) settings = next.data;
    else broken.push(part);
  }
  return { settings, broken };
}

/** Settings with the version that a save of them names. */
export const settingsSchema = z.object({ version: z.int(), settings: projectSettingsSchema });
