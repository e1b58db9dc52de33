import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';
import { useNewField, type ImportedKind } from './useNewField.ts';

interface Props<T extends string> {
  readonly kind: ImportedKind;
  readonly columns: readonly { readonly name: string; readonly examples: readonly string[] }[];
  readonly targetOf: (name: string) => T;
  readonly optionsOf: (name: string) => readonly { readonly value: T; readonly name: string }[];
  readonly onTarget: (name: string, target: T | `own:${string}`) => void;
}

const NEW_FIELD = { value: 'newField', name: 'A new field of the project' } as const;

/** The columns of a file: what each is, and what stands in it. One that is nothing we know becomes a field of the project's own, where one says so. */
export function ColumnTable<T extends string>({ kind, columns, targetOf, optionsOf, onTarget }: Props<T>) {
  const { project } = useFrame();
  const { isReady, isMaking, make } = useNewField(project, kind);
  const choose = async (column: string, target: T | 'newField'): Promise<void> => {
    if (target !== NEW_FIELD.value) return onTarget(column, target as T);
    // Nothing is disabled meanwhile: what has the focus would lose it.
    if (isMaking) return;
    const id = await make(column);
    if (id !== null) onTarget(column, `own:${id}`);
  };
  return (
    <table className="mt-2 w-full text-sm">
      <thead>
        <tr className="text-left text-xs text-ink2">
          <th className="w-1/4 py-1 font-normal">Column</th>
          <th className="w-1/4 py-1 font-normal">is</th>
          <th className="py-1 font-normal">such as</th>
        </tr>
      </thead>
      <tbody>
        {columns.map(({ name, examples }) => (
          <tr key={name} className="border-b border-rule">
            <td className="py-1 pr-3 font-medium">{name}</td>
            <td className="py-1 pr-3">
              <Choose<T | 'newField'> label={`${name} is`} value={targetOf(name)} options={[...optionsOf(name), ...(isReady ? [NEW_FIELD] : [])]} onChange={(target) => void choose(name, target)} />
            </td>
            <td className="max-w-0 truncate py-1 text-ink2" title={examples.join(' · ')}>
              {examples.join(' · ')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
