import { conflictKey, type ConflictChoice } from '@caderno/core/exchange';
import { LIMITS, type ImportPreview } from '@caderno/contract';
import { WordDiff } from '../versions/index.ts';
import { fieldWord } from './targetWords.ts';

type PlannedChange = ImportPreview['changed'][number];
type Conflict = PlannedChange['conflicts'][number];

interface Props {
  readonly change: PlannedChange;
  readonly choices: Readonly<Record<string, ConflictChoice>>;
  readonly onChoose: (key: string, choice: ConflictChoice) => void;
}

/** One requirement the file would change, field by field; where both sides changed, both are shown. */
export function PlannedChangeLine({ change, choices, onChoose }: Props) {
  return (
    <li className="border-b border-rule py-1.5 text-sm">
      <div>
        <span className="font-mono text-xs text-ink2">{change.id}</span> <span className="font-medium">{change.title}</span> <span className="text-xs text-ink2">line {change.line}</span>
      </div>
      {change.fields.map(({ field, from, to }) => (
        <div key={field} className="flex gap-3 pl-9">
          <span className="w-24 shrink-0 text-xs leading-5 text-ink2">{fieldWord(field)}</span>
          <Words from={from} to={to} />
        </div>
      ))}
      {change.conflicts.map((conflict) => (
        <ConflictChoice key={conflict.field} id={change.id} conflict={conflict} choice={choices[conflictKey(change.id, conflict.field)]} onChoose={(side) => onChoose(conflictKey(change.id, conflict.field), side)} />
      ))}
      {change.moves && <div className="pl-9 text-xs text-ink2">stands below another requirement in the file</div>}
      {change.relations && <div className="pl-9 text-xs text-ink2">its relations change</div>}
    </li>
  );
}

function Words({ from, to }: { readonly from: string; readonly to: string }) {
  return (
    <span className="min-w-0 whitespace-pre-wrap break-words">
      <WordDiff from={from} to={to} />
    </span>
  );
}

interface ConflictProps {
  readonly id: PlannedChange['id'];
  readonly conflict: Conflict;
  readonly choice: ConflictChoice | undefined;
  readonly onChoose: (choice: ConflictChoice) => void;
}

function ConflictChoice({ id, conflict, choice, onChoose }: ConflictProps) {
  const { field, base, mine, theirs } = conflict;
  const sides = [['mine', 'here', mine], ['theirs', 'in the file', theirs]] as const;
  return (
    <fieldset className={`my-1 ml-9 rounded-[5px] px-3 py-1.5 ${choice === undefined ? 'bg-ochre-wash' : 'bg-page2'}`}>
      <legend className="sr-only">
        {fieldWord(field)} of {id}, changed on both sides
      </legend>
      <div className="text-xs text-ink2">{fieldWord(field)}, changed on both sides</div>
      <div className="grid grid-cols-2 gap-4">
        {sides.map(([side, where, value]) => (
          <label key={side} className="flex cursor-pointer items-start gap-2">
            <input type="radio" name={conflictKey(id, field)} checked={choice === side} onChange={() => onChoose(side)} className="mt-1" />
            <span>
              <span className="text-xs text-ink2">{where}</span>
              <span className="block">
                <Words from={base} to={value} />
              </span>
            </span>
          </label>
        ))}
      </div>
      <label className="mt-1.5 flex cursor-pointer items-start gap-2">
        <input type="radio" name={conflictKey(id, field)} checked={typeof choice === 'object'} onChange={() => onChoose({ own: theirs })} className="mt-1" />
        <span className="min-w-0 flex-1">
          <span className="text-xs text-ink2">another text</span>
          {typeof choice === 'object' && (
            <textarea autoFocus aria-label={`Another text for ${fieldWord(field)} of ${id}`} value={choice.own} maxLength={LIMITS.text} rows={2} onChange={(e) => onChoose({ own: e.target.value })} className="field-boxed mt-0.5 block w-full [field-sizing:content]" />
          )}
        </span>
      </label>
    </fieldset>
  );
}
