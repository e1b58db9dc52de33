import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, RISKS, WORDING_RULES } from '@caderno/core/basis';
import { PARAMETER_TYPES, CASE_KINDS, EXECUTIONS, ROW_MARKS } from '@caderno/core/cases';
import { BOUNDARY_RULES, CLASS_KINDS, POLARITIES, STATE_LEVELS, STRENGTHS } from '@caderno/core/conditions';
import { OWN_FIELD_TYPES } from '@caderno/core/fields';
import { ORDERED_KINDS } from '@caderno/core/values';
import { ROLES, TRACKER_KINDS, countsViewSchema } from '@caderno/contract';
import { z } from 'zod';

/** The files of a demo project, as written by hand. Artefacts are named by their titles. */
export const projectDocument = z.strictObject({
  key: z.string(),
  name: z.string(),
  people: z.array(z.strictObject({ name: z.string(), email: z.email(), job: z.string(), role: z.enum(ROLES), installation: z.boolean().default(false) })),
});

/** Field name to value, as one would write it. */
const own = z.record(z.string(), z.string()).default({});

/** Names of files beside this one that are attached. */
const files = z.array(z.string()).default([]);

const requirement = z.strictObject({
  files,
  title: z.string(),
  below: z.string().optional(),
  module: z.string(),
  type: z.enum(REQUIREMENT_TYPES).default('rule'),
  risk: z.enum(RISKS).default('medium'),
  priority: z.string().default('medium'),
  source: z.string().default(''),
  text: z.string(),
  own,
  by: z.string(),
  daysAgo: z.number(),
});
export const requirementsDocument = z.array(requirement);
export type DemoRequirement = z.infer<typeof requirement>;

/** How the basis came in: files through the importers, oldest first. */
export const importsDocument = z.array(
  z.union([z.strictObject({ file: z.string(), by: z.string(), daysAgo: z.number() }), z.strictObject({ stories: z.string(), by: z.string(), daysAgo: z.number() })]),
);
export type DemoImport = z.infer<typeof importsDocument>[number];

/** `fields`: what carries each field, a column of the examples or a value that stands in a step; `expects`: texts of steps. */
const scenarioCover = z.strictObject({ scenario: z.string(), condition: z.string(), fields: z.record(z.string(), z.string()).default({}), outcome: z.string().nullable().default(null), expects: z.array(z.string()).default([]) });

/** Files of features as they came in together, which requirements each is written for, by its path, as a whole or with some scenarios, and the conditions scenarios cover. */
export const featuresDocument = z.array(
  z.strictObject({ files: z.array(z.string()), module: z.string(), by: z.string(), daysAgo: z.number(), requirements: z.record(z.string(), z.array(z.union([z.string(), z.strictObject({ requirement: z.string(), scenarios: z.array(z.string()) })]))), covers: z.array(scenarioCover).default([]) }),
);
export type DemoFeatures = z.infer<typeof featuresDocument>[number];

const storyTexts = { title: z.string(), description: z.string(), acceptance: z.array(z.string()) };
/** What the simulated story tracker holds; the demo imported it as it was `earlier`. */
export const storyboardDocument = z.strictObject({
  project: z.string(),
  stories: z.array(z.strictObject({ key: z.string(), ...storyTexts, labels: z.array(z.string()), status: z.string(), new: z.boolean().default(false), earlier: z.strictObject(storyTexts).partial().optional() })),
  defects: z.array(z.strictObject({ key: z.string(), title: z.string(), status: z.string() })),
});

export const settingsDocument = z.strictObject({
  by: z.string(),
  daysAgo: z.number(),
  tracker: z.strictObject({ kind: z.enum(TRACKER_KINDS), address: z.string(), project: z.string() }),
  rulesOff: z.array(z.enum(WORDING_RULES)),
  /** What one scenario takes. */
  scenarioMinutes: z.strictObject({ byHand: z.number(), automated: z.number() }),
  /** What are values in steps, beside texts and numbers, and what they look like. */
  valueKinds: z.record(z.string(), z.string()),
  glossary: z.array(z.strictObject({ term: z.string(), forms: z.array(z.string()), definition: z.string() })),
  constants: z.array(z.strictObject({ name: z.string(), value: z.string(), secret: z.boolean().default(false), description: z.string(), in: z.record(z.string(), z.string()).default({}) })),
  agreement: z.strictObject({ needed: z.number(), role: z.enum(ROLES), authors: z.boolean(), byHand: z.boolean() }),
  /** Kept for everybody. */
  queries: z.array(z.strictObject({ kind: z.enum(ARTEFACT_KINDS), name: z.string(), query: z.string().default(''), counts: countsViewSchema.nullable().default(null) })).default([]),
  /** Name, then factors and their values. */
  factors: z.record(z.string(), z.array(z.string())).default({}),
  rules: z.string().default(''),
  configurations: z.array(z.strictObject({ name: z.string(), factors: z.record(z.string(), z.string()) })).default([]),
  fields: z.array(z.strictObject({ name: z.string(), of: z.array(z.enum(ARTEFACT_KINDS)), type: z.enum(OWN_FIELD_TYPES), choices: z.array(z.string()).default([]), help: z.string().default('') })).default([]),
});
export type DemoSettings = z.infer<typeof settingsDocument>;

const byAndWhen = { by: z.string(), daysAgo: z.number() };
const question = z.strictObject({
  files,
  title: z.string(),
  text: z.string(),
  asked: z.string(),
  about: z.array(
    z.union([
      z.strictObject({ requirement: z.string(), words: z.string().default(''), holds: z.boolean().default(false) }),
      z.strictObject({ condition: z.string(), items: z.array(z.string()).default([]) }),
    ]),
  ),
  observations: z.array(z.strictObject({ documented: z.string(), done: z.string(), seen: z.string(), ...byAndWhen })).default([]),
  ...byAndWhen,
  answer: z.strictObject({ text: z.string(), ...byAndWhen }).optional(),
  withdrawn: z.strictObject(byAndWhen).optional(),
});
export const questionsDocument = z.array(question);
export type DemoQuestion = z.infer<typeof question>;

const validity = z.enum(['valid', 'invalid']);
const field = z.strictObject({
  name: z.string(),
  type: z.enum([...ORDERED_KINDS, 'textPattern', 'choice', 'yesNo']),
  step: z.union([z.string(), z.number()]).optional(),
  unit: z.string().default(''),
  required: z.boolean().default(true),
  /** name, from, to, validity, outcome */
  intervals: z.array(z.tuple([z.string(), z.string(), z.string(), validity, z.string()])).default([]),
  /** value, validity, outcome, aliases… */
  choices: z.array(z.tuple([z.string(), validity, z.string()]).rest(z.string())).default([]),
  /** kind, name, example, outcome */
  /** Name, pattern, example, validity, outcome. */
  patterns: z.array(z.tuple([z.string(), z.string(), z.string(), validity, z.string()])).default([]),
  classes: z.array(z.tuple([z.enum(CLASS_KINDS), z.string(), z.string(), z.string()])).default([]),
});
export type DemoField = z.infer<typeof field>;

const condition = z.strictObject({
  title: z.string(),
  /** Requirement title, then the words it hangs on; without words it bears on the whole. */
  of: z.array(z.tuple([z.string()]).rest(z.string())),
  polarity: z.enum(POLARITIES).default('both'),
  risk: z.enum(RISKS).nullable().default(null),
  boundaries: z.enum(BOUNDARY_RULES).default('twoValue'),
  fields: z.array(field).default([]),
  /** Lines of a decision table, cells between bars, as it would be pasted from a spreadsheet. */
  table: z.string().optional(),
  states: z
    .strictObject({
      level: z.enum(STATE_LEVELS).default('switch0'),
      invalidPairs: z.boolean().default(false),
      initial: z.string(),
      final: z.array(z.string()).default([]),
      /** From, event, guard, to, action. */
      transitions: z.array(z.tuple([z.string(), z.string(), z.string(), z.string(), z.string()])),
    })
    .optional(),
  combination: z
    .strictObject({
      strength: z.enum(STRENGTHS).default('pairs'),
      /** Name, then values; an exclamation mark before an invalid one, its outcome after a colon. */
      factors: z.array(z.tuple([z.string()]).rest(z.string())),
      constraints: z.array(z.string()).default([]),
      seed: z.number().default(1),
    })
    .optional(),
  depths: z.array(z.string()).default([]),
  /** Name of the item, reason. */
  leaveOut: z.array(z.tuple([z.string(), z.string()])).default([]),
  by: z.string(),
  daysAgo: z.number(),
});
export const conditionsDocument = z.array(condition);
export type DemoCondition = z.infer<typeof condition>;

const testCase = z.strictObject({
  title: z.string(),
  module: z.string(),
  kind: z.enum(CASE_KINDS).default('procedure'),
  execution: z.enum(EXECUTIONS).default('byHand'),
  objective: z.string().default(''),
  areas: z.string().default(''),
  ideas: z.string().default(''),
  /** Titles of cases. */
  dependsOn: z.array(z.string()).default([]),
  preconditions: z.string().default(''),
  priority: z.string().default('medium'),
  tags: z.array(z.string()).default([]),
  estimate: z.number().nullable().default(null),
  owner: z.string().default(''),
  /** As one would paste it: a step a line, `=>` before what is expected; `/` before the title of shared steps or a case to call. */
  steps: z.string(),
  /** name, type, default, description */
  parameters: z.array(z.tuple([z.string(), z.enum(PARAMETER_TYPES), z.string(), z.string()])).default([]),
  /** name of the row, then a cell for each of the first parameters */
  rows: z.array(z.tuple([z.string()]).rest(z.string())).default([]),
  /** A data set by its title, whose columns without a parameter here become parameters; `rows`: the names of those that run. */
  data: z.strictObject({ set: z.string(), rows: z.array(z.string()).optional() }).optional(),
  own,
  files,
  /** Number of the step, file beside this one. */
  pictures: z.array(z.tuple([z.number(), z.string()])).default([]),
  covers: z
    .array(
      z.strictObject({
        condition: z.string(),
        /** field name to parameter name */
        fields: z.record(z.string(), z.string()).default({}),
        outcome: z.string().nullable().default(null),
        /** numbers of the steps whose expected results speak for it */
        expects: z.array(z.number()).default([]),
        /** Number of the step, event, and the guard of the transition that is meant. */
        events: z.array(z.tuple([z.number(), z.string(), z.string()])).default([]),
      }),
    )
    .default([]),
  by: z.string(),
  daysAgo: z.number(),
});
export const casesDocument = z.array(testCase);
export type DemoCase = z.infer<typeof testCase>;

const dataSet = z.strictObject({
  title: z.string(),
  purpose: z.string(),
  module: z.string(),
  /** name, type, default, description */
  columns: testCase.shape.parameters,
  /** Name of the row and a cell for each column. */
  rows: z.array(z.strictObject({ row: z.tuple([z.string()]).rest(z.string()), for: z.string().default(''), mark: z.enum(ROW_MARKS).nullable().default(null), aside: z.boolean().default(false) })),
  /** Condition, field name to column name, and the column of what is expected. */
  serves: z.array(z.strictObject({ condition: z.string(), fields: z.record(z.string(), z.string()), outcome: z.string().nullable().default(null) })).default([]),
  by: z.string(),
  daysAgo: z.number(),
});
export const dataSetsDocument = z.array(dataSet);
export type DemoDataSet = z.infer<typeof dataSet>;

/** Shared steps: steps and parameters as in a case; phrases that they say in full, with the parameters that take the values. */
const sharedSteps = testCase.pick({ title: true, module: true, steps: true, parameters: true, by: true, daysAgo: true }).extend({ purpose: z.string(), phrases: z.array(z.tuple([z.string(), z.array(z.string())])).default([]) });
export const sharedDocument = z.array(sharedSteps);
export type DemoShared = z.infer<typeof sharedSteps>;

/** What happened later, oldest first. */
/** Baselines of everything. */
export const baselinesDocument = z.array(z.strictObject({ name: z.string(), note: z.string().default(''), by: z.string(), daysAgo: z.number() }));
export type DemoBaseline = z.infer<typeof baselinesDocument>[number];

export const historyDocument = z.array(
  z.strictObject({
    title: z.string(),
    kind: z.enum(['requirement', 'condition', 'case', 'shared', 'dataSet']),
    by: z.string(),
    daysAgo: z.number(),
    /** A text to be found in the content as it stands, and what takes its place. */
    replace: z.tuple([z.string(), z.string()]).optional(),
    state: z.enum(['draft', 'agreed', 'withdrawn']).optional(),
    /** Says that the links to what changed underneath are still right. */
    confirm: z.boolean().default(false),
    note: z.string().default(''),
  }),
);
export type DemoEvent = z.infer<typeof historyDocument>[number];
