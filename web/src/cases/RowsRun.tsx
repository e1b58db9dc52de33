import { ALL_ROWS, NAME_COLUMN, type Parameter, type Row, type RowChoice } from '@caderno/core/cases';
import { TextButton, countOf, locale } from '../look/index.ts';

interface Props {
  readonly rows: readonly Row[];
  readonly running: number;
  readonly choice: RowChoice;
  readonly parameters: readonly Parameter[];
  readonly canEdit: boolean;
  readonly onChange: (choice: RowChoice) => void;
}

/** Which rows a case runs, when it is not all of them. */
export function RowsRun({ rows, running, choice, parameters, canEdit, onChange }: Props) {
  if (choice.kind === 'all') return null;
  const gone = choice.kind === 'chosen' ? choice.rows.filter((id) => !rows.some((r) => r.id === id)).length : 0;
  return (
    <p className="mb-1.5 rounded-field bg-blue-wash px-3 py-1 text-sm">
      Runs {running.toLocaleString(locale())} of {countOf(rows.length, 'row')}
      {choice.kind === 'chosen' ? ', chosen one by one' : ', those with '}
      {choice.kind === 'filter' &&
        choice.filters.map((f) => (
          <span key={f.id} className="mr-2 whitespace-nowrap">
            <span className="cad-parameter">{f.id === NAME_COLUMN ? 'name' : `<${parameters.find((p) => p.id === f.id)?.name ?? 'a parameter that is gone'}>`}</span> <span className="font-mono text-xs">{/^[=!<>]/.test(f.text) ? f.text : `… ${f.text} …`}</span>
          </span>
        ))}
      {'. '}
      {gone > 0 && <span className="text-brick">{countOf(gone, 'chosen row')} {gone === 1 ? 'is' : 'are'} gone. </span>}
      {canEdit && choice.kind === 'chosen' && gone > 0 && <TextButton className="mr-3" onClick={() => onChange({ kind: 'chosen', rows: choice.rows.filter((id) => rows.some((r) => r.id === id)) })}>forget {gone === 1 ? 'it' : 'them'}</TextButton>}
      {canEdit && <TextButton onClick={() => onChange(ALL_ROWS)}>run all</TextButton>}
    </p>
  );
}
