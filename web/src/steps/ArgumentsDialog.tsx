import { type Argument, type CalledRows, type CaseCall, type Parameter, type Row, type SharedUse, type Use } from '@caderno/core/cases';
import { allRows, openParameters, rowsToRun, type Library, type UsedSteps } from '@caderno/core/shared';
import { Button, Dialog, TextButton, countOf, Answer, TickIn, TextBox, Select } from '../look/index.ts';
import { ChooseVersion } from './ChooseVersion.tsx';

interface Props {
  readonly use: Use;
  readonly used: UsedSteps;
  readonly library: Library;
  /** The parameters of whoever uses it. */
  readonly callers: readonly Parameter[];
  readonly onChange: (part: Partial<SharedUse> | Partial<CaseCall>) => void;
  readonly onClose: () => void;
}

/** Where the values of what is used come from: a row, every row, or the caller; and what the caller gives to each parameter. */
export function ArgumentsDialog({ use, used, library, callers, onChange, onClose }: Props) {
  const open = openParameters(used, library);
  const lost = use.arguments.filter((a) => a.value !== '' && !open.some((p) => p.name === a.id));
  const give = (name: string, value: string): void => onChange({ arguments: [...use.arguments.filter((a) => a.id !== name), ...(value === '' ? [] : [{ id: name, value } satisfies Argument])] });
  const move = (from: Argument, to: string): void => onChange({ arguments: [...use.arguments.filter((a) => a.id !== from.id && a.id !== to), { id: to, value: from.value }] });
  return (
    <Dialog title={`Values of ${used.id} ${used.content.title}`} keepsAtOnce onClose={onClose} wide>
      {use.kind === 'call' && used.kind === 'case' && <Rows rows={use.rows} called={allRows(used.content, library)} running={rowsToRun(used.content, library).length} onChange={(rows) => onChange({ rows })} />}
      {lost.map((argument) => (
        <p key={argument.id} className="mt-2 rounded-field bg-brick-wash px-3 py-1.5 text-sm">
          <span className="cad-parameter">{`<${argument.id}>`}</span> was given <span className="font-mono">{argument.value}</span>, and {used.id} has no such parameter any more. Give it to{' '}
          {open.filter((p) => !use.arguments.some((a) => a.id === p.name)).map((p) => (
            <TextButton key={p.name} className="mr-2" onClick={() => move(argument, p.name)}>{`<${p.name}>`}</TextButton>
          ))}
          or <TextButton onClick={() => give(argument.id, '')}>drop it</TextButton>
        </p>
      ))}
      {open.length === 0 ? (
        <p className="mt-3 text-ink2">It has no parameters.</p>
      ) : (
        <table className="mt-3 w-full text-sm">
          <thead className="text-left text-xs text-ink2">
            <tr>
              <th className="w-1/4 pb-1 font-normal">parameter</th>
              <th className="w-2/5 pb-1 font-normal">is given</th>
              <th className="pb-1 font-normal">otherwise</th>
            </tr>
          </thead>
          <tbody>
            {open.map((parameter, i) => (
              <tr key={parameter.name} className="border-t border-rule">
                <td className="py-1.5 pr-3">
                  <span className="cad-parameter">{`<${parameter.name}>`}</span>
                  {parameter.description !== '' && <span className="block text-xs text-ink2">{parameter.description}</span>}
                </td>
                <td className="pr-3">
                  <TextBox
                    autoFocus={i === 0}
                    aria-label={`What ${parameter.name} is given`}
                    value={use.arguments.find((a) => a.id === parameter.name)?.value ?? ''}
                    placeholder="text, <parameter>, or (missing)"
                    list="cad-callers"
                    onChange={(text) => give(parameter.name, text)}
                    className="w-full font-mono text-xs"
                  />
                </td>
                <td className="text-xs text-ink2">{otherwise(parameter, callers)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <datalist id="cad-callers">
        {callers.map((p) => (
          <option key={p.id} value={`<${p.name}>`} />
        ))}
      </datalist>
      <div className="mt-5 flex items-center gap-4">
        <Button onClick={onClose}>Done</Button>
        <ChooseVersion pinned={use.pinned} version={used.version} onChange={(pinned) => onChange({ pinned })} />
      </div>
    </Dialog>
  );
}

function otherwise(parameter: Parameter, callers: readonly Parameter[]): string {
  if (callers.some((c) => c.name === parameter.name)) return 'this one’s parameter of the same name';
  const last = parameter.default === '' ? 'and has no default' : `or its default, ${parameter.default}`;
  return `whoever runs this one gives it, ${last}`;
}

function Rows({ rows, called, running, onChange }: { readonly rows: CalledRows; readonly called: readonly Row[]; readonly running: number; readonly onChange: (rows: CalledRows) => void }) {
  const [first] = called;
  const own = rows.kind === 'own' ? rows.row : '';
  const isThere = called.some((r) => r.id === own);
  const there = called.map((r) => ({ value: r.id, name: r.name || 'unnamed' }));
  return (
    <fieldset className="space-y-1.5 text-sm">
      <legend className="mb-1 text-xs text-ink2">Which of its rows run?</legend>
      <Answer name="rows" checked={rows.kind === 'mine'} onPick={() => onChange({ kind: 'mine' })}>
        none: the values given below
      </Answer>
      <Answer name="rows" checked={rows.kind === 'own'} disabled={first === undefined} onPick={() => first !== undefined && onChange({ kind: 'own', row: first.id })}>
        one:
        <Select aria-label="Row of the called case" disabled={first === undefined} value={own} options={isThere ? there : [{ value: own, name: own === '' ? 'choose a row' : 'a row that is gone' }, ...there]} onChange={(row) => row !== '' && onChange({ kind: 'own', row })} />
      </Answer>
      <Answer name="rows" checked={rows.kind === 'chosen'} disabled={first === undefined} onPick={() => onChange({ kind: 'chosen', rows: called.map((r) => r.id) })}>
        chosen ones
        {rows.kind === 'chosen' && <span className="text-ink2">: this case runs {countOf(Math.max(1, called.filter((r) => rows.rows.includes(r.id)).length), 'time')} for each of its own</span>}
      </Answer>
      {rows.kind === 'chosen' && <ChosenRows chosen={rows.rows} called={called} onChange={(chosen) => onChange({ kind: 'chosen', rows: chosen })} />}
      <Answer name="rows" checked={rows.kind === 'every'} onPick={() => onChange({ kind: 'every' })}>
        every row that runs there: this case runs {countOf(Math.max(1, running), 'time')} for each of its own
      </Answer>
      {rows.kind !== 'mine' && <p className="text-xs text-ink2">What the row leaves empty is looked for below.</p>}
    </fieldset>
  );
}

function ChosenRows({ chosen, called, onChange }: { readonly chosen: readonly Row['id'][]; readonly called: readonly Row[]; readonly onChange: (rows: readonly Row['id'][]) => void }) {
  const gone = chosen.filter((id) => !called.some((r) => r.id === id)).length;
  return (
    <div className="ml-6 max-h-40 overflow-y-auto">
      {gone > 0 && (
        <p className="text-brick">
          {countOf(gone, 'chosen row')} {gone === 1 ? 'is' : 'are'} gone. <TextButton onClick={() => onChange(chosen.filter((id) => called.some((r) => r.id === id)))}>forget {gone === 1 ? 'it' : 'them'}</TextButton>
        </p>
      )}
      {called.map((row) => (
        <TickIn key={row.id} item={row.id} of={chosen} onChange={onChange}>
          {row.name || 'unnamed'}
        </TickIn>
      ))}
    </div>
  );
}
