import type { ShownByLink } from '@caderno/contract';
import { parseArtefactId } from '@caderno/core/artefacts';
import type { CopiedField, CopiedInstance, CopiedPart, CopiedStep } from '@caderno/core/readingCopy';
import { countOf, locale } from '../look/index.ts';
import { SafeMarkdown } from '../text/index.ts';

const FIELD_WORD: Record<CopiedField, string> = { text: 'Text', answer: 'Answer', purpose: 'What it is for', objective: 'Objective', mission: 'Mission', areas: 'Areas', ideas: 'Ideas', preconditions: 'Preconditions', scenarios: 'Scenarios' };

/** An artefact as words: texts, rows, and what is to be done in each instance. */
export function Copy({ id, copy }: Pick<ShownByLink, 'id' | 'copy'>) {
  const { texts, table, instances, beyond, files } = copy;
  const left = BigInt(beyond);
  const isEmpty = texts.length === 0 && table === null && instances.length === 0 && left === 0n;
  return (
    <>
      {texts.map(({ field, text }) => (
        <section key={field} className="mt-4" aria-label={FIELD_WORD[field]}>
          {field !== 'text' && <h2 className="text-xs text-ink2">{FIELD_WORD[field]}</h2>}
          {field === 'scenarios' ? <pre className="overflow-x-auto whitespace-pre-wrap break-words font-mono text-[13px] leading-6">{text}</pre> : <SafeMarkdown text={text} />}
        </section>
      ))}
      {table !== null && <Rows table={table} />}
      {instances.map((instance, n) => (
        <Instance key={n} instance={instance} heading={instances.length > 1 || left > 0n || instance.name !== '' ? `instance ${n + 1} of ${(BigInt(instances.length) + left).toLocaleString(locale())}` : null} />
      ))}
      {left > 0n && <p className="mt-3 text-sm text-ochre-ink">{beyondWords(id, copy, left)}</p>}
      {isEmpty && <p className="mt-4 text-ink2">Nothing is written yet beyond the title.</p>}
      {files.length > 0 && (
        <p className="mt-5 text-sm text-ink2">
          {countOf(files.length, 'file')} that belong to it stay in the project: {files.join(', ')}
        </p>
      )}
    </>
  );
}

function beyondWords(id: ShownByLink['id'], { table, instances }: ShownByLink['copy'], left: bigint): string {
  const kind = parseArtefactId(id)?.kind;
  if (kind === 'condition' && table === null) return `It has ${left.toLocaleString(locale())} coverage items, too many to be shown here. Ask for them on paper or as a file.`;
  if (kind === 'condition' || kind === 'dataSet') return `and ${left.toLocaleString(locale())} more`;
  return instances.length === 0 ? 'It is too large to be shown here. Ask for it on paper or as a file.' : `and ${left.toLocaleString(locale())} more ${left === 1n ? 'instance' : 'instances'} that are not shown here`;
}

function Rows({ table: [columns = [], ...rows] }: { readonly table: NonNullable<ShownByLink['copy']['table']> }) {
  return (
    <div className="mt-4 overflow-x-auto" tabIndex={0} role="region" aria-label="Rows">
      <table className="w-full text-left text-sm">
        <thead className="border-b border-ink text-xs text-ink2">
          <tr>
            {columns.map((column, i) => (
              <th key={i} className="py-1 pr-3 font-semibold">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="divide-y divide-rule">
          {rows.map((row, r) => (
            <tr key={r}>
              {row.map((cell, c) => (
                <td key={c} className="whitespace-pre-line break-words py-1 pr-3 align-top">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Instance({ instance: { name, texts, steps }, heading }: { readonly instance: CopiedInstance; readonly heading: string | null }) {
  return (
    <section className="mt-5" aria-label={heading ?? 'Steps'}>
      {heading !== null && (
        <h2 className="border-y border-rule2 bg-page2 px-3 py-1 text-sm font-normal">
          {heading} <strong className="ml-2 font-mono">{name}</strong>
        </h2>
      )}
      <dl className="mt-2 grid grid-cols-[6.5rem_1fr] gap-y-1 text-sm max-phone:grid-cols-1">
        {texts.map(({ field, parts }) => (
          <div key={field} className="contents">
            <dt className="text-xs leading-6 text-ink2">{FIELD_WORD[field]}</dt>
            <dd className="whitespace-pre-line break-words leading-6">
              <Parts parts={parts} />
            </dd>
          </div>
        ))}
      </dl>
      <ol className="mt-2">
        {steps.map((step, i) => (
          <Step key={i} step={step} number={i + 1} origin={step.from !== (steps[i - 1]?.from ?? '') ? step.from : ''} />
        ))}
      </ol>
    </section>
  );
}

function Step({ step: { from, action, expected }, number, origin }: { readonly step: CopiedStep; readonly number: number; readonly origin: string }) {
  return (
    <li className={`break-inside-avoid ${from === '' ? '' : 'ml-5'}`}>
      {origin !== '' && <p className="mt-2 border-b border-rule pb-0.5 text-xs text-ink2">{origin}</p>}
      <div className="flex gap-3 border-b border-rule py-2">
        <span className="w-7 shrink-0 pt-0.5 font-mono text-xs text-ink2">{number}</span>
        <div className="min-w-0 flex-1 break-words text-read leading-6">
          {action.length > 0 && (
            <p className="whitespace-pre-line">
              <Parts parts={action} />
            </p>
          )}
          {expected.length > 0 && (
            <p className="whitespace-pre-line text-pine">
              <b aria-hidden="true">⇒</b> <Parts parts={expected} />
            </p>
          )}
        </div>
      </div>
    </li>
  );
}

function Parts({ parts }: { readonly parts: readonly CopiedPart[] }) {
  return parts.map((part, i) => <Part key={i} part={part} />);
}

function Part({ part: { kind, text } }: { readonly part: CopiedPart }) {
  switch (kind) {
    case 'text':
      return text;
    case 'value':
      return <span className="cad-value">{text === '' ? '“”' : text}</span>;
    case 'missing':
      return <em className="cad-value">no {text}, on purpose</em>;
    case 'unbound':
      return <span className="cad-parameter cad-undeclared">{`<${text}>`}</span>;
    case 'gone':
      return <span className="text-brick">What stood here is not there any more: {text}.</span>;
  }
}
