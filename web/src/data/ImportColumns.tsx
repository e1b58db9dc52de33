import type { Parameter } from '@caderno/core/cases';
import type { RowColumn, SourceDocument } from '@caderno/core/exchange';
import { Choose } from '../look/index.ts';

interface Props {
  readonly document: SourceDocument;
  readonly columns: readonly RowColumn[];
  readonly parameters: readonly Parameter[];
  readonly onChange: (columns: RowColumn[]) => void;
}

/** What each column of a file is taken for, with what it holds. */
export function ImportColumns({ document, columns, parameters, onChange }: Props) {
  const options = [{ value: 'name', name: 'name of the row' }, ...parameters.map((p) => ({ value: p.id as string, name: `<${p.name}>` })), { value: 'new', name: 'a new parameter' }, { value: 'leave', name: 'not taken in' }];
  const valueOf = (column: RowColumn): string => (column.kind === 'parameter' ? column.id : column.kind);
  const set = (at: number, value: string): void => {
    const parameter = parameters.find((p) => p.id === value);
    const target: RowColumn = parameter !== undefined ? { kind: 'parameter', id: parameter.id } : value === 'name' || value === 'new' ? { kind: value } : { kind: 'leave' };
    // What another column was taken for is free again.
    onChange(columns.map((c, i) => (i === at ? target : target.kind !== 'new' && valueOf(c) === valueOf(target) ? { kind: 'leave' } : c)));
  };
  return (
    <table className="mt-3 w-full text-sm">
      <thead>
        <tr className="border-b border-ink2 text-left text-xs text-ink2">
          <th className="py-1 font-medium">column</th>
          <th className="font-medium">is</th>
          <th className="font-medium">holds, for example</th>
        </tr>
      </thead>
      <tbody>
        {document.columns.map((name, i) => (
          <tr key={name} className="border-b border-rule">
            <td className="py-1 font-mono text-xs">{name}</td>
            <td className="py-1 pr-2">
              <Choose label={`Column ${name}`} value={valueOf(columns[i] ?? { kind: 'leave' })} options={options} onChange={(value) => set(i, value)} />
            </td>
            <td className="max-w-80 truncate font-mono text-xs text-ink2">
              {document.records
                .slice(0, 4)
                .map((r) => r.cells[i] ?? '')
                .filter((cell) => cell !== '')
                .join(' · ')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
