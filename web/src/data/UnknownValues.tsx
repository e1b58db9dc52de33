import type { ConditionId } from '@caderno/core/artefacts';
import { readCell } from '@caderno/core/data';
import type { Cover, Row } from '@caderno/core/cases';
import { namedValuesOf, placeOfValue, withAlias, type FieldId, type NamedValue } from '@caderno/core/conditions';
import type { DesignCondition } from '@caderno/core/coverage';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { useWrite } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';

interface Props {
  readonly rows: readonly Row[];
  readonly carried: readonly Pick<Cover, 'id' | 'fields'>[];
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly canEdit: boolean;
}

interface Unknown {
  readonly text: string;
  readonly condition: DesignCondition;
  readonly field: FieldId;
  readonly values: readonly NamedValue[];
}

const MOST_LISTED = 5;

/** Words in cells that a condition with named values does not know: each may be another name of one it has. */
export function UnknownValues({ rows, carried, conditions, canEdit }: Props) {
  const { project } = useFrame();
  const write = useWrite(project);
  const unknown = useMemo(() => unknownIn(rows, carried, conditions), [carried, conditions, rows]);
  if (unknown.length === 0) return null;
  const say = async ({ text, condition: { id, version, content }, field, values }: Unknown, value: string): Promise<void> => {
    const named = values.find((v) => v.id === value);
    if (named === undefined) return;
    const changed = [{ kind: 'condition' as const, id, version, content: { ...content, model: withAlias(content.model, field, named.id, text) } }];
    if ((await write({ changed, detail: `“${text}” is another name of “${named.value}”` })) !== null) toast.success(`${id} knows “${text}” as another name of “${named.value}” now. The journal can undo it.`);
  };
  return (
    <ul className="mt-1 text-xs text-ink2">
      {unknown.slice(0, MOST_LISTED).map((u) => (
        <li key={`${u.condition.id} ${u.field} ${u.text}`} className="flex min-h-7 flex-wrap items-center gap-1.5">
          <span className="font-mono text-brick">{u.text}</span> is no value that {u.condition.id} knows.
          {canEdit && <Choose label={`What ${u.text} is in ${u.condition.id}`} value="" options={[{ value: '', name: 'another name of …' }, ...u.values.map((v) => ({ value: v.id, name: v.value }))]} onChange={(value) => void say(u, value)} />}
        </li>
      ))}
      {unknown.length > MOST_LISTED && <li>and {unknown.length - MOST_LISTED} more</li>}
    </ul>
  );
}

function unknownIn(rows: readonly Row[], carried: Props['carried'], conditions: Props['conditions']): Unknown[] {
  return carried.flatMap(({ id, fields }) => {
    const condition = conditions.get(id);
    if (condition === undefined) return [];
    return fields.flatMap(({ id: field, parameter }) => {
      const values = namedValuesOf(condition.content.model, field);
      if (values === null) return [];
      const texts = new Set(rows.flatMap((row) => {
        const cell = readCell(row.cells[parameter] ?? '');
        return cell.kind === 'text' && cell.text !== '' && !cell.text.includes('<') ? [cell.text] : [];
      }));
      return [...texts].filter((text) => placeOfValue(values, text) < 0).map((text) => ({ text, condition, field, values }));
    });
  });
}
