import type { FeatureId } from '@caderno/core/artefacts';
import { featurePathSchema, type FeatureSummary } from '@caderno/contract';

/** What is wrong with where a feature stands among the files, and what to do; null: nothing. */
export function pathProblem(id: FeatureId, path: string, features: readonly Pick<FeatureSummary, 'id' | 'path' | 'state'>[]): string | null {
  if (!featurePathSchema.safeParse(path).success) return `“${path}” names no file, so that nothing can be saved. Write folders and a name with / between, as bills/bill.feature.`;
  const same = features.find((f) => f.id !== id && f.path === path && f.state !== 'withdrawn');
  if (same === undefined) return null;
  return `${same.id} stands at the same place: of the two files the one with the higher number is given another name when they go out. Call one of them otherwise.`;
}
