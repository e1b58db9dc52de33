import type { CaseId } from '../artefacts/index.ts';
import { caseInstances, type BoundValue, type CaseContent, type Cover, type Instance, type RowId } from '../cases/index.ts';
import {
  PLAIN_ITEM,
  itemsShownByRow,
  rangeJudge,
  type FieldId,
  type FieldValue,
  type ItemKey,
  type Model,
  type RangeJudge,
} from '../conditions/index.ts';

/** An instance that shows an item. `row` null: the case's one instance without a row. */
export interface InstanceRef {
  readonly case: CaseId;
  readonly row: RowId | null;
  readonly rowName: string;
}

/** A model made ready to judge many cases. */
export type ModelJudge = { readonly kind: 'plain' } | { readonly kind: 'valueRanges'; readonly ranges: RangeJudge };

/** What a case shows of one condition: by item, the instances that do, in row order. */
export type Evidence = ReadonlyMap<ItemKey, readonly InstanceRef[]>;

export function modelJudge(model: Model): ModelJudge {
  return model.kind === 'plain' ? { kind: 'plain' } : { kind: 'valueRanges', ranges: rangeJudge(model) };
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
  if (!named) return new Map();
  const refs = content.rows.length === 0 ? [ref(id, null, '')] : content.rows.map((r) => ref(id, r.id, r.name));
  return new Map([[PLAIN_ITEM, refs]]);
}

function rangeEvidence(id: CaseId, content: CaseContent, cover: Cover, judge: RangeJudge): Evidence {
  const evidence = new Map<ItemKey, InstanceRef[]>();
  if (cover.fields.length === 0) return evidence;
  for (const instance of caseInstances(content)) {
    for (const key of itemsShownByRow(judge, fieldValues(cover, instance))) {
      const refs = evidence.get(key);
      if (refs === undefined) evidence.set(key, [ref(id, instance.row, instance.rowName)]);
      else refs.push(ref(id, instance.row, instance.rowName));
    }
  }
  return evidence;
}

/** The values an instance gives to a condition's fields; unbound ones give none. */
export function fieldValues(cover: Cover, instance: Instance): Map<FieldId, FieldValue> {
  const values = new Map<FieldId, FieldValue>();
  for (const { id, parameter } of cover.fields) {
    const value = fieldValue(instance.values.get(parameter));
    if (value !== null) values.set(id, value);
  }
  return values;
}

function fieldValue(bound: BoundValue | undefined): FieldValue | null {
  switch (bound?.kind) {
    case 'value':
      return { kind: 'text', text: bound.text };
    case 'missing':
      return { kind: 'missing' };
    case 'unbound':
    case undefined:
      return null;
  }
}

function ref(id: CaseId, row: RowId | null, rowName: string): InstanceRef {
  return { case: id, row, rowName };
}
