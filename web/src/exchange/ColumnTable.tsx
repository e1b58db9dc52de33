import { Choose } from '../look/index.ts';

interface Props<T extends string> {
  readonly columns: readonly { readonly name: string; readonly examples: readonly string[] }[];
  readonly targetOf: (name: string) => T;
  readonly optionsOf: (name: string) => readonly { readonly value: T; readonly name: string }[];
  readonly onTarget: (name: string, target: T) => void;
  readonly disabled?: boolean;
}

/** The columns of a file: what each is, and what stands in it. */
export function ColumnTable<T extends string>({ columns, targetOf, optionsOf, onTarget, disabled = false }: Props<T>) {
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
              <Choose label={`${name} is`} value={targetOf(name)} options={optionsOf(name)} disabled={disabled} onChange={(target) => onTarget(name, target)} />
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
