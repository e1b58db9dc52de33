import type { Pin } from '@caderno/core/artefacts';
import { parameterId, type CaseContent, type DataUse, type Parameter } from '@caderno/core/cases';
import { columnsNotTaken, withRowsOwned } from '@caderno/core/dataSets';
import { keyOfData, type Library } from '@caderno/core/shared';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, TextButton } from '../look/index.ts';
import { ChooseVersion } from '../steps/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly data: DataUse;
  readonly content: CaseContent;
  readonly library: Library;
  readonly canEdit: boolean;
  readonly update: Editing<CaseContent>['update'];
  readonly children: ReactNode;
}

/** Rows that a case takes from a data set: which one, at which version, and what of its columns goes where. */
export function SharedRows({ data, content, library, canEdit, update, children }: Props) {
  const { project } = useFrame();
  const used = library.get(keyOfData(data));
  const latest = useSummaries(project, 'dataSet').data?.find((s) => s.id === data.set);
  const setData = (part: Partial<DataUse>): void => update((c) => (c.data === null ? c : { ...c, data: { ...c.data, ...part } }));
  if (used?.kind !== 'dataSet') {
    return (
      <p className="text-sm text-ink2">
        {data.set}
        {typeof data.pinned === 'number' && ` v${data.pinned}`} is being read. If it does not come, it is not there any more. {canEdit && <TextButton onClick={() => update((c) => ({ ...c, data: null }))}>take it out</TextButton>}
        {canEdit && latest !== undefined && data.pinned !== null && <TextButton className="ml-3" onClick={() => setData({ pinned: null })}>follow the latest</TextButton>}
      </p>
    );
  }
  const behind = data.pinned !== null && latest !== undefined && latest.version > used.version;
  return (
    <div className="mt-2 border-l-2 border-dashed border-ink2 pl-3">
      <p className="flex flex-wrap items-baseline gap-x-3 text-sm">
        <span>
          rows of{' '}
          <Link className="underline decoration-rule2" to={address.dataSet(project, data.set)}>
            <span className="font-mono text-xs">{data.set}</span> {used.content.title}
          </Link>
        </span>
        {used.withdrawn && <span className="text-brick">It is withdrawn: take other rows.</span>}
        {(behind || !canEdit) && (
          <span className={`text-xs ${behind ? 'text-ochre-ink' : 'text-ink2'}`}>
            {meaningWords(data.pinned, used.version)}
            {behind && (
              <>
                ; v{latest.version} is there ·{' '}
                <Link className="underline" to={`${address.versions(project, data.set)}?from=${used.version}&to=${latest.version}`}>
                  compare
                </Link>
              </>
            )}
          </span>
        )}
        {canEdit && (
          <span className="flex flex-wrap items-baseline gap-3 text-xs">
            {behind && data.pinned !== 'agreed' && <TextButton onClick={() => setData({ pinned: latest.version })}>move to v{latest.version}</TextButton>}
            <ChooseVersion pinned={data.pinned} version={used.version} onChange={(pinned) => setData({ pinned })} />
            <TextButton title="The same rows, that change with the data set no longer" onClick={() => update((c) => withRowsOwned(c, used.content))}>
              make them its own
            </TextButton>
            <TextButton onClick={() => update((c) => ({ ...c, data: null }))}>take them out</TextButton>
          </span>
        )}
      </p>
      <Columns data={data} content={content} columns={used.content.parameters} notTaken={columnsNotTaken(used.content, data)} canEdit={canEdit} onTake={(column, to) => update((c) => withColumnTaken(c, column, to))} />
      <div className="mt-1.5">{children}</div>
    </div>
  );
}

function meaningWords(pinned: Pin, version: number): string {
  if (pinned === 'agreed') return `follows what is agreed, v${version}`;
  return pinned === null ? 'follows the latest' : `pinned to v${pinned}`;
}

interface ColumnsProps {
  readonly data: DataUse;
  readonly content: CaseContent;
  readonly columns: readonly Parameter[];
  readonly notTaken: readonly Parameter[];
  readonly canEdit: boolean;
  readonly onTake: (column: Parameter, to: Parameter | null) => void;
}

/** What a name leaves open: columns that go to a parameter of another name, and those that nothing takes. */
function Columns({ data, content, columns, notTaken, canEdit, onTake }: ColumnsProps) {
  const renamed = data.columns.flatMap(({ id, column }) => {
    const [parameter, from] = [content.parameters.find((p) => p.id === id), columns.find((p) => p.id === column)];
    return parameter !== undefined && from !== undefined && parameter.name !== from.name ? [{ parameter, from }] : [];
  });
  const lost = data.columns.filter(({ column }) => !columns.some((p) => p.id === column));
  if (renamed.length + notTaken.length + lost.length === 0) return null;
  const free = content.parameters.filter((p) => !data.columns.some((c) => c.id === p.id));
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-xs text-ink2">
      {renamed.map(({ parameter, from }) => (
        <span key={parameter.id}>
          <span className="cad-parameter">{`<${parameter.name}>`}</span> ← column <span className="font-mono">{from.name}</span>
        </span>
      ))}
      {lost.length > 0 && <span className="text-brick">{lost.map(({ id }) => `<${content.parameters.find((p) => p.id === id)?.name ?? ''}>`).join(', ')} took a column that is gone.</span>}
      {notTaken.map((column) => (
        <span key={column.id} className="flex items-center gap-1">
          column <span className="font-mono">{column.name}</span> goes
          {canEdit ? (
            <Choose
              label={`Column ${column.name}`}
              value=""
              options={[{ value: '', name: 'nowhere' }, ...free.map((p) => ({ value: p.id as string, name: `to <${p.name}>` })), { value: 'new', name: 'to a new parameter' }]}
              onChange={(value) => value !== '' && onTake(column, free.find((p) => p.id === value) ?? null)}
            />
          ) : (
            'nowhere'
          )}
        </span>
      ))}
    </p>
  );
}

/** The case with a column going to a parameter of its own, or to a new one. */
function withColumnTaken(content: CaseContent, column: Parameter, to: Parameter | null): CaseContent {
  const { data } = content;
  if (data === null) return content;
  const made = to ?? { ...column, id: content.parameters.some((p) => p.id === column.id) ? parameterId(`${column.id}-${content.parameters.length}`) : column.id };
  return { ...content, parameters: to === null ? [...content.parameters, made] : content.parameters, data: { ...data, columns: [...data.columns.filter((c) => c.id !== made.id), { id: made.id, column: column.id }] } };
}
