import { isPlainStep, type CaseContent, type PlainStep, type Row, type Step } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { coverageItems } from '@caderno/core/conditions';
import type { GapFilling, SeenCondition } from '@caderno/core/coverage';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { countOf, IconButton } from '../../look/index.ts';

interface Props {
  readonly condition: SeenCondition;
  readonly filling: GapFilling;
  readonly drafts: readonly CaseContent[];
  readonly onChange: (drafts: readonly CaseContent[]) => void;
  /** Something else is to be seen below. */
  readonly short?: boolean;
}

/** Most cases that are shown open; more are written all the same. */
const MOST_OPEN = 40;

/** The cases that would be written: titles, steps and rows can be edited, and what is not wanted be taken out. */
export function CaseDrafts({ condition, filling, drafts, onChange, short = false }: Props) {
  const names = useMemo(() => new Map<string, string>(coverageItems(condition.content).map((i) => [i.key, i.extent === '' ? i.name : `${i.name} (${i.extent})`])), [condition]);
  const set = (at: number, draft: CaseContent): void => onChange(drafts.map((d, i) => (i === at ? draft : d)));
  return (
    <div className={`mt-3 space-y-5 overflow-y-auto pr-1 ${short ? 'max-h-[34vh]' : 'max-h-[52vh]'}`}>
      {drafts.slice(0, MOST_OPEN).map((draft, i) => (
        <section key={i} aria-label={`Case ${i + 1}`} className="border-t border-rule2 pt-2">
          <div className="flex items-center gap-2">
            <GrowingText isFirst={i === 0} most={LIMITS.title} label="Title of the case" value={draft.title} onChange={(title) => set(i, { ...draft, title })} className="flex-1 font-serif text-base font-semibold" />
            {drafts.length > 1 && <Remove word="Leave this case out" onClick={() => onChange(drafts.filter((_, at) => at !== i))} />}
          </div>
          {draft.preconditions !== '' && <p className="text-xs text-ink2">Before: {draft.preconditions}</p>}
          <DraftSteps steps={draft.steps} onChange={(steps) => set(i, { ...draft, steps })} />
          {draft.rows.length > 0 && <DraftRows draft={draft} onChange={(rows) => set(i, { ...draft, rows })} />}
        </section>
      ))}
      {drafts.length > MOST_OPEN && <p className="text-sm text-ink2">and {countOf(drafts.length - MOST_OPEN, 'more case')}</p>}
      {drafts.length === 0 && filling.unreachable.length === 0 && <p>There is nothing to write.</p>}
      {filling.unreachable.length > 0 && (
        <p className="text-sm text-brick">
          {countOf(filling.unreachable.length, 'item')} cannot be shown by anything that can be made up:{' '}
          {filling.unreachable
            .slice(0, 6)
            .map((key) => names.get(key))
            .join('; ')}
          {filling.unreachable.length > 6 && ` and ${filling.unreachable.length - 6} more`}.
        </p>
      )}
    </div>
  );
}

/** A line that shows all of its text, in as many lines as it takes. */
function GrowingText({ label, value, placeholder, onChange, isFirst = false, most = LIMITS.line, className = '' }: { readonly isFirst?: boolean; readonly most?: number; readonly label: string; readonly value: string; readonly placeholder?: string; readonly onChange: (text: string) => void; readonly className?: string }) {
  return (
    <textarea
      aria-label={label}
      data-first={isFirst || undefined}
      rows={1}
      value={value}
      maxLength={most}
      placeholder={placeholder}
      onChange={(e) => onChange(e.target.value.replaceAll('\n', ' '))}
      className={`block min-w-0 resize-none bg-transparent py-1 leading-5 outline-none [field-sizing:content] focus:bg-blue-wash ${className}`}
    />
  );
}

function Remove({ word, onClick }: { readonly word: string; readonly onClick: () => void }) {
  return (
    <IconButton label={word} small title={word} onClick={onClick} icon={<X size={13} aria-hidden="true" />} />
  );
}

function DraftSteps({ steps, onChange }: { readonly steps: readonly Step[]; readonly onChange: (steps: readonly Step[]) => void }) {
  const set = (id: string, part: Partial<PlainStep>): void => onChange(steps.map((s) => (s.id === id && isPlainStep(s) ? { ...s, ...part } : s)));
  return (
    <ol className="text-sm">
      {steps.filter(isPlainStep).map((step, i) => (
        <li key={step.id} className="grid grid-cols-[22px_1fr_16px_1fr] items-baseline border-b border-rule">
          <span className="font-mono text-xs text-ink2">{i + 1}</span>
          <GrowingText label={`Action of step ${i + 1}`} value={step.action} placeholder="What is done" onChange={(action) => set(step.id, { action })} />
          <span className="font-bold text-pine" aria-hidden="true">
            ⇒
          </span>
          <GrowingText label={`Expected result of step ${i + 1}`} value={step.expected} placeholder="What is expected then" onChange={(expected) => set(step.id, { expected })} className="text-pine" />
        </li>
      ))}
    </ol>
  );
}

const MOST_ROWS = 60;

function DraftRows({ draft, onChange }: { readonly draft: CaseContent; readonly onChange: (rows: readonly Row[]) => void }) {
  const set = (id: string, part: Partial<Row>): void => onChange(draft.rows.map((r) => (r.id === id ? { ...r, ...part } : r)));
  return (
    <div className="mt-2 overflow-x-auto">
      <table className="min-w-full text-left text-sm" aria-label="Rows to be added">
        <thead className="border-b border-ink2 text-xs text-ink2">
          <tr>
            <th className="py-1 font-medium">row</th>
            {draft.parameters.map((p) => (
              <th key={p.id} className="whitespace-nowrap px-1 font-mono text-fine font-medium">{`<${p.name}>`}</th>
            ))}
            <th />
          </tr>
        </thead>
        <tbody>
          {draft.rows.slice(0, MOST_ROWS).map((row) => (
            <tr key={row.id} className="border-b border-rule">
              <td>
                <GrowingText most={200} label="Name of the row" value={row.name} onChange={(name) => set(row.id, { name })} className="w-44" />
              </td>
              {draft.parameters.map((p) => (
                <td key={p.id} className="px-1">
                  <GrowingText label={`${p.name} in ${row.name}`} value={row.cells[p.id] ?? ''} onChange={(text) => set(row.id, { cells: { ...row.cells, [p.id]: text } })} className="w-full min-w-24 font-mono text-xs" />
                </td>
              ))}
              <td>
                <Remove word={`Leave out ${row.name}`} onClick={() => onChange(draft.rows.filter((r) => r.id !== row.id))} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {draft.rows.length > MOST_ROWS && <p className="mt-1 text-xs text-ink2">and {countOf(draft.rows.length - MOST_ROWS, 'more row')}</p>}
    </div>
  );
}
