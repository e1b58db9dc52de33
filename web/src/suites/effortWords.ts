import type { SuiteFigures } from '@caderno/core/suites';
import { countOf, durationOf } from '../look/index.ts';

type Effort = Pick<SuiteFigures, 'cases' | 'scenarios' | 'minutes'>;

/** `14 cases`, `2 scenarios`, `58 min`; what there is none of is left out. */
export function effortWords({ cases, scenarios, minutes }: Effort): string[] {
  if (cases + scenarios === 0) return ['empty'];
  return [...(cases > 0 ? [countOf(cases, 'case')] : []), ...(scenarios > 0 ? [countOf(scenarios, 'scenario')] : []), ...(minutes > 0 ? [durationOf(minutes)] : [])];
}
