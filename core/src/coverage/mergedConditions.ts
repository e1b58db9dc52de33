import { isCaseId, type CaseId, type ConditionId } from '../artefacts/index.ts';
import { newCover, type CaseContent, type Cover } from '../cases/index.ts';
import type { ConditionContent } from '../conditions/index.ts';
import type { SeenCondition } from './addRows.ts';
import type { DesignCase } from './design.ts';

/** What merging conditions comes to: the one that stays, and the cases whose links lead to it now. */
export interface ConditionMerge {
  readonly condition: ConditionContent;
  readonly cases: readonly { readonly id: CaseId; readonly version: number; readonly content: CaseContent }[];
}

/**
 * Merges conditions into one that stays: it keeps its title and model, hangs on all their requirements, and belongs to
 * all their depths. Cases that covered another cover it; what they carried of the other's model is dropped, as its
 * fields are not those of the model that stays, and the steps they named speak on.
 */
export function mergedConditions(kept: SeenCondition, absorbed: readonly { readonly id: ConditionId; readonly content: ConditionContent }[], cases: readonly DesignCase[]): ConditionMerge {
  const contents = [kept.content, ...absorbed.map((a) => a.content)];
  const condition: ConditionContent = {
    ...kept.content,
    requirements: firstOfEach(contents.flatMap((c) => c.requirements)),
    depths: [...new Set(contents.flatMap((c) => c.depths))],
    observations: firstOfEach(contents.flatMap((c) => c.observations)),
    defects: firstOfEach(contents.flatMap((c) => c.defects)),
    attachments: firstOfEach(contents.flatMap((c) => c.attachments)),
  };
  const gone = new Set<ConditionId>(absorbed.map((a) => a.id));
  const changed = cases.flatMap(({ id, version, content }) => (isCaseId(id) && content.covers.some((x) => gone.has(x.id)) ? [{ id, version, content: { ...content, covers: mergedCovers(content.covers, kept, gone) } }] : []));
  return { condition, cases: changed };
}

/** What a case or a scenario covers once conditions are merged: the first cover that goes becomes the one of the condition that stays, unless it covers that already. The very same where it covers none of them. */
export function mergedCovers(covers: readonly Cover[], kept: Pick<SeenCondition, 'id' | 'version'>, gone: ReadonlySet<ConditionId>): readonly Cover[] {
  if (!covers.some((c) => gone.has(c.id))) return covers;
  const expects = [...new Set(covers.filter((c) => gone.has(c.id) || c.id === kept.id).flatMap((c) => c.expects))];
  const own = covers.find((c) => c.id === kept.id);
  const merged: Cover = { ...(own ?? newCover(kept.id, kept.version)), expects };
  const at = covers.findIndex((c) => c.id === (own?.id ?? covers.find((x) => gone.has(x.id))?.id));
  return covers.flatMap((c, i) => (i === at ? [merged] : gone.has(c.id) ? [] : [c]));
}

function firstOfEach<E extends { readonly id: string }>(elements: readonly E[]): E[] {
  return elements.filter((e, i) => elements.findIndex((x) => x.id === e.id) === i);
}
