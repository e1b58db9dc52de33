import type { CaseId } from '../artefacts/index.ts';
import { bindCell, type BoundValue, type CaseContent, type Cover, type Parameter, type Row, type RowId } from '../cases/index.ts';
import { TECHNIQUE_OF_ITEM, itemsShown, rangeJudge, type ConditionContent, type FieldValue, type RangeJudge, type Technique } from '../conditions/index.ts';

/** An instance that shows an item. `row` null: the case's one instance without a row. */
export interface InstanceRef {
  readonly case: CaseId;
  readonly row: RowId | null;
  readonly rowName: string;
}

/** A model made ready to judge many cases, with the technique of each of its items by place. */
export type ModelJudge =
  | { readonly kind: 'plain'; readonly techniques: readonly Technique[] }
  | { readonly kind: 'valueRanges'; readonly techniques: readonly Technique[]; readonly ranges: RangeJudge };

/** What a case shows of one condition: by the item's place, the instances that do, in row order. */
export type Evidence = readonly (readonly InstanceRef[] | undefined)[];

const NOTHING: Evidence = [];

export function modelJudge(condition: ConditionContent): ModelJudge {
  if (condition.model.kind === 'plain') return { kind: 'plain', techniques: [TECHNIQUE_OF_ITEM.condition] };
  const ranges = rangeJudge(condition.model);
  return { kind: 'valueRanges', techniques: ranges.kinds.map((kind) => TECHNIQUE_OF_ITEM[kind]), ranges };
}

/** What a case shows of a condition it covers. */
export function caseEvidence(id: CaseId, content: CaseContent, cover: Cover, judge: ModelJudge): Evidence {
  switch (judge.kind) {
    case 'plain':
      return plainEvidence(id, content, cover);
    case 'valueRanges':
      return rangeEvidence(id, content, cover, judge.ranges);
  }
}

/** A plain condition is shown by every instance of a case whose link names a step that expects something. */
function plainEvidence(id: CaseId, content: CaseContent, cover: Cover): Evidence {
  const named = content.steps.some((s) => cover.expects.includes(s.id) && s.expected.trim() !== '');
  return named ? [rowsOf(content).map((row) => ref(id, row))] : NOTHING;
}

function rangeEvidence(id: CaseId, content: CaseContent, cover: Cover, judge: RangeJudge): Evidence {
  if (cover.fields.length === 0) return NOTHING;
  const carriers = judge.fields.map(({ field }) => carrierOf(content, cover, field.id));
  const evidence: (InstanceRef[] | undefined)[] = new Array<InstanceRef[] | undefined>(judge.kinds.length).fill(undefined);
  for (const row of rowsOf(content)) {
    const shown = itemsShown(judge, carriers.map((parameter) => (parameter === null ? null : fieldValue(bindCell(parameter, row)))));
    if (shown.length === 0) continue;
    const instance = ref(id, row);
    for (const place of shown) {
      const refs = evidence[place];
      if (refs === undefined) evidence[place] = [instance];
      else refs.push(instance);
    }
  }
  return evidence;
}

/** A case without rows has one instance, without a row. */
function rowsOf(content: CaseContent): readonly (Row | null)[] {
  return content.rows.length === 0 ? [null] : content.rows;
}

function carrierOf(content: CaseContent, cover: Cover, field: string): Parameter | null {
  const mapping = cover.fields.find((f) => f.id === field);
  return mapping === undefined ? null : (content.parameters.find((p) => p.id === mapping.parameter) ?? null);
}

function fieldValue(bound: BoundValue): FieldValue | null {
  switch (bound.kind) {
    case 'value':
      return { kind: 'text', text: bound.text };
    case 'missing':
      return bound;
    case 'unbound':
      return null;
  }
}

function ref(id: CaseId, row: Row | null): InstanceRef {
  return { case: id, row: row?.id ?? null, rowName: row?.name ?? '' };
}
