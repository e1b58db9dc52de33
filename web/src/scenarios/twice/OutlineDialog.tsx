import { areOutlineNames, outlineOf, planOutline, textOf, withOutline, type FeatureContent, type OutlineNames, type OutlinePlan, type OutlineRefusal, type OwnKinds, type PartId } from '@caderno/core/scenarios';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { someIds } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Button, Dialog, countOf, TextBox, Labelled } from '../../look/index.ts';
import { useWording } from '../../phrases/index.ts';

interface Props {
  readonly content: FeatureContent;
  /** Scenarios that are the same but for values. */
  readonly parts: readonly PartId[];
  readonly onMade: (change: (content: FeatureContent) => FeatureContent) => void;
  readonly onClose: () => void;
}

/** Scenarios that differ only in values become one outline: how it and its columns are called, and what the file would say, before it is done. */
export function OutlineDialog({ content, parts, onMade, onClose }: Props) {
  const { own } = useWording(useFrame().project);
  const plan = planOutline(content, parts, own);
  return (
    <Dialog title={`One outline of ${countOf(parts.length, 'scenario')}`} onClose={onClose} wide>
      {typeof plan === 'string' ? <Refused refusal={plan} onClose={onClose} /> : <Naming content={content} plan={plan} own={own} onMade={onMade} onClose={onClose} />}
    </Dialog>
  );
}

const REFUSAL_WORDS: Record<OutlineRefusal, string> = {
  too_few: 'There is only one of them left.',
  all_same: 'They are the same word for word, values too: nothing would be a row. Take out all but one.',
  has_examples: 'One of them is an outline already.',
  other_rule: 'They stand in different rules.',
  other_steps: 'Their steps say different things by now.',
  other_table: 'A table of theirs has another shape.',
  other_doc_string: 'The text under a step is not the same in all of them.',
};

function Refused({ refusal, onClose }: { readonly refusal: OutlineRefusal; readonly onClose: () => void }) {
  return (
    <>
      <p>They cannot be one outline. {REFUSAL_WORDS[refusal]}</p>
      <p className="mt-4 text-right">
        <Button onClick={onClose}>Close</Button>
      </p>
    </>
  );
}

interface Planned {
  readonly plan: OutlinePlan;
  /** With which it was planned. */
  readonly own: OwnKinds;
}

/** Rows that the preview shows. */
const MOST_ROWS = 12;

function Naming({ content, plan, own, onMade, onClose }: Omit<Props, 'parts'> & Planned) {
  const [name, setName] = useState(plan.name);
  const [columns, setColumns] = useState(plan.columns.map((c) => c.name));
  const names = { name: renamed(name, plan, columns), columns };
  const fits = areOutlineNames(names);
  const make = (): void => {
    const ids = someIds();
    onMade((now) => withOutline(now, plan.parts, names, ids(), own) ?? now);
    onClose();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (fits) make();
      }}
    >
      <Labelled label="Its name; a column between angle brackets stands for its value" pale className="text-sm">
        <TextBox aria-label="Name of the outline" value={name} maxLength={LIMITS.title} onChange={setName} className="w-full" />
      </Labelled>
      <h3 className="mt-3 text-sm font-semibold">Its examples</h3>
      <div tabIndex={0} className="mt-1 max-h-[30vh] overflow-auto">
        <table className="font-mono text-xs">
          <thead>
            <tr className="text-left">
              <th scope="col" className="pr-4 font-sans font-normal text-ink2">now</th>
              {columns.map((column, i) => (
                <th key={i} scope="col" className="pr-4 font-normal">
                  <TextBox aria-label={`Name of column ${i + 1}`} aria-invalid={!areOutlineNames({ name: '', columns: [column] })} value={column} maxLength={LIMITS.name} onChange={(text) => setColumns(columns.with(i, text))} className="w-32" />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plan.parts.slice(0, MOST_ROWS).map((part, row) => (
              <tr key={part} className="border-b border-rule">
                <th scope="row" className="py-1 pr-4 text-left font-normal text-ink2">/{content.parts.find((p) => p.id === part)?.number || '…'}</th>
                {plan.columns.map((column, i) => (
                  <td key={i} className="whitespace-pre-wrap py-1 pr-4">{column.values[row]}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {plan.parts.length > MOST_ROWS && <p className="mt-1 text-xs text-ink2">and {plan.parts.length - MOST_ROWS} more</p>}
      </div>
      {fits ? <Written content={content} plan={plan} own={own} names={names} /> : <p role="status" className="mt-3 text-sm text-brick">Each column needs a name of its own, without &lt; &gt; | and \.</p>}
      <p className="mt-2 text-sm text-ink2">The first keeps its number; the others’ end. What they cover, the outline covers.</p>
      <p className="mt-4 flex justify-end gap-3">
        <Button onClick={onClose}>Leave them</Button>
        <Button look="accent" type="submit" disabled={!fits}>Make one outline</Button>
      </p>
    </form>
  );
}

/** A column that is called otherwise is so in the name too. */
function renamed(name: string, plan: OutlinePlan, columns: readonly string[]): string {
  return plan.columns.reduce((text, column, i) => (column.name === columns[i] ? text : text.replaceAll(`<${column.name}>`, `<${columns[i] ?? ''}>`)), name).trim();
}

/** What the file would say in their place. */
function Written({ content, plan, own, names }: Pick<Props, 'content'> & Planned & { readonly names: OutlineNames }) {
  const made = withOutline(content, plan.parts, names, () => 'new', own);
  const part = made?.parts.find((p) => p.id === plan.parts[0]);
  if (made === null || part === undefined) return null;
  const left = outlineOf(made).scenarios.filter((s) => s.kind === 'scenario').length;
  return (
    <>
      <h3 className="mt-3 text-sm font-semibold">In the file, which has {countOf(left, 'scenario')} then</h3>
      <pre tabIndex={0} aria-label="What the file would say" className="mt-1 max-h-[30vh] overflow-auto rounded-field bg-page2 px-3 py-2 font-mono text-xs">{textOf({ parts: [part] }).replaceAll('\r', '').trimEnd()}</pre>
    </>
  );
}
