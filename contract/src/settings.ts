import { DEFAULT_RISK_SCALE, LONGEST_SCALE, RISKS, SHORTEST_SCALE, WORDING_RULES, type RiskScale, type Term, type WordingRule } from '@caderno/core/basis';
import { LOOK_RULES, isParameterName, type LookRule } from '@caderno/core/cases';
import type { Configuration, Constant } from '@caderno/core/shared';
import { DEFAULT_MOST_ITEMS } from '@caderno/core/conditions';
import { z } from 'zod';
import { LIMITS } from './limits.ts';
import { innerIdSchema } from './ids.ts';

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
  readonly configurations: readonly Configuration[];
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

const text = (most: number) => z.string().max(most).refine((t) => !t.includes('\0') && t.isWellFormed(), 'must be text without NUL characters');
const names = z.array(text(60).min(1)).min(SHORTEST_SCALE).max(LONGEST_SCALE);
const weight = z.int().min(1).max(1_000);

const riskScaleSchema: z.ZodType<RiskScale> = z
  .strictObject({
    likelihood: names,
    impact: names,
    risks: z.array(z.array(z.enum(RISKS))),
    weights: z.strictObject({ high: weight, medium: weight, low: weight }),
  })
  .refine(({ likelihood, impact, risks }) => risks.length === likelihood.length && risks.every((row) => row.length === impact.length), 'must have a risk for every pair of steps');

const termSchema: z.ZodType<Term> = z.strictObject({ id: innerIdSchema, term: text(LIMITS.name).min(1), forms: z.array(text(LIMITS.name)).max(50), definition: text(5_000) });

export const constantSchema: z.ZodType<Constant> = z.strictObject({ id: innerIdSchema, name: text(80).refine(isParameterName, 'must be a name that can stand between angle brackets'), value: text(2_000), secret: z.boolean(), description: text(LIMITS.title), others: z.record(innerIdSchema, text(2_000)) });

const configurationSchema: z.ZodType<Configuration> = z.strictObject({ id: innerIdSchema, name: text(LIMITS.name).min(1), factors: z.array(z.strictObject({ name: text(LIMITS.name).min(1), value: text(LIMITS.name) })).max(30) });

export const projectSettingsSchema: z.ZodType<ProjectSettings> = z.strictObject({
  riskScale: riskScaleSchema,
  glossary: z.array(termSchema).max(LIMITS.terms).refine((terms) => new Set(terms.map((t) => t.id)).size === terms.length, 'ids must not repeat'),
  rulesOff: z.array(z.enum(WORDING_RULES)),
  tracker: z.strictObject({ kind: z.enum(TRACKER_KINDS), address: z.url({ protocol: /^https?$/ }).max(LIMITS.address), project: text(LIMITS.name) }).nullable(),
  depths: z.array(text(60).min(1)).max(LIMITS.depths).refine((depths) => new Set(depths).size === depths.length, 'must not repeat'),
  mostItems: z.int().min(100).max(LIMITS.items),
  constants: z.array(constantSchema).max(LIMITS.constants).refine((list) => new Set(list.map((c) => c.id)).size === list.length, 'ids must not repeat'),
  looksOff: z.array(z.enum(LOOK_RULES)),
  configurations: z.array(configurationSchema).max(LIMITS.configurations).refine((list) => new Set(list.map((c) => c.id)).size === list.length, 'ids must not repeat'),
});

export const DEFAULT_SETTINGS: ProjectSettings = { riskScale: DEFAULT_RISK_SCALE, glossary: [], rulesOff: [], tracker: null, depths: ['smoke', 'core', 'full'], mostItems: DEFAULT_MOST_ITEMS, constants: [], looksOff: [], configurations: [] };

function withOthers(constants: unknown): unknown {
  return z.array(z.looseObject({})).catch([]).parse(constants ?? []).map((constant) => ({ others: {}, ...constant }));
}

/** Settings as they are stored: those stored before a part was known have its default. */
export const storedSettingsSchema: z.ZodType<ProjectSettings> = z.preprocess((stored) => {
  const known = z.record(z.string(), z.unknown()).safeParse(stored);
  if (!known.success) return stored;
  const { depths, mostItems, looksOff, configurations } = DEFAULT_SETTINGS;
  return { depths, mostItems, looksOff, configurations, ...known.data, constants: withOthers(known.data.constants) };
}, projectSettingsSchema);

export const settingsSchema = z.object({ version: z.int(), settings: projectSettingsSchema });
