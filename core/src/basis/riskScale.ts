export const RISKS = ['high', 'medium', 'low'] as const;
export type Risk = (typeof RISKS)[number];

/** Steps of a project's scales, from 0: the least likely, the slightest. */
export interface RiskRating {
  readonly likelihood: number;
  readonly impact: number;
}

/** How a project rates risk: the names of the steps from least to most, and the risk of every pair of steps. */
export interface RiskScale {
  readonly likelihood: readonly string[];
  readonly impact: readonly string[];
  /** `risks[likelihood][impact]`. */
  readonly risks: readonly (readonly Risk[])[];
  /** What a coverage item weighs by its risk; whole numbers from 1. */
  readonly weights: Readonly<Record<Risk, number>>;
}

export const SHORTEST_SCALE = 2;
export const LONGEST_SCALE = 6;

export const DEFAULT_RISK_SCALE: RiskScale = {
  likelihood: ['unlikely', 'possible', 'likely'],
  impact: ['slight', 'serious', 'severe'],
  risks: [
    ['low', 'low', 'medium'],
    ['low', 'medium', 'high'],
    ['medium', 'high', 'high'],
  ],
  weights: { high: 9, medium: 3, low: 1 },
};

/** The risk of a rating. A step beyond a scale that was shortened since counts as its last step. */
export function ratedRisk(scale: RiskScale, rating: RiskRating): Risk {
  const row = scale.risks[Math.min(rating.likelihood, scale.risks.length - 1)];
  return row?.[Math.min(rating.impact, row.length - 1)] ?? 'medium';
}

/** The risk a requirement has: by its rating, or as said outright. */
export function effectiveRisk(scale: RiskScale, content: { readonly risk: Risk; readonly rating: RiskRating | null }): Risk {
  return content.rating === null ? content.risk : ratedRisk(scale, content.rating);
}

/** The scale with as many steps as there are names; new pairs take the risk of their nearest neighbour. */
export function resizeScale(scale: RiskScale, likelihood: readonly string[], impact: readonly string[]): RiskScale {
  const risks = likelihood.map((_, l) => impact.map((__, i) => ratedRisk(scale, { likelihood: l, impact: i })));
  return { ...scale, likelihood, impact, risks };
}
