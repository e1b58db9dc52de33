import type { Specified } from '@caderno/core/specification';
import { CASE_KIND_WORD, EXECUTION_WORD, durationOf } from '../look/index.ts';
import { PartHead } from './PartHead.tsx';
import { RowsTable } from './RowsTable.tsx';
import { StepsTable } from './StepsTable.tsx';
import { Named, NamedAll } from './Told.tsx';

/** A case: what it covers, its steps, its data. */
export function CasePart({ testCase }: { readonly testCase: Specified<'case'> }) {
  const { content } = testCase;
  const { kind, objective, areas, ideas, preconditions, steps, parameters, rows, data, covers, dependsOn, attachments } = content;
  const facts = [CASE_KIND_WORD[kind], EXECUTION_WORD[content.execution], content.estimate === null ? '' : durationOf(content.estimate), content.owner, ...content.tags];
  const texts = [[kind === 'charter' ? 'Mission' : 'Objective', objective], ['Areas', areas], ['Ideas', ideas], ['Preconditions', preconditions]] as const;
  return (
    <section className="mt-6">
      <PartHead of={testCase} facts={facts} />
      {covers.length > 0 && (
        <p className="mt-1 text-xs">
          Covers <NamedAll ids={[...new Set(covers.map((c) => c.id))]} />
        </p>
      )}
      {dependsOn.length > 0 && (
        <p className="mt-1 text-xs">
          After <NamedAll ids={dependsOn.map((d) => d.id)} />
        </p>
      )}
      <dl className="mt-1 text-sm">
        {texts.map(
          ([word, text]) =>
            text.trim() !== '' && (
              <div key={word} className="mt-1">
                <dt className="spec-keep text-xs text-ink2">{word}</dt>
                <dd className="whitespace-pre-line">{text}</dd>
              </div>
            ),
        )}
      </dl>
      <StepsTable steps={steps} />
      {rows.length > 0 && <RowsTable parameters={parameters} rows={rows} />}
      {data !== null && (
        <p className="mt-1 text-sm">
          Rows of <Named id={data.set} />
          {typeof data.pinned === 'number' && `, version ${data.pinned}`}
        </p>
      )}
      {attachments.length > 0 && <p className="mt-1 text-xs text-ink2">Files: {attachments.map((a) => a.name).join(', ')}</p>}
    </section>
  );
}
