import { usedBy, type Step, type Use } from '@caderno/core/cases';
import { Named } from './Told.tsx';

/** Steps as they are written: what is done, and what is expected; what is used stands in its place by its name. */
export function StepsTable({ steps }: { readonly steps: readonly Step[] }) {
  if (steps.length === 0) return null;
  return (
    <table className="mt-2 w-full table-fixed text-sm" aria-label="Steps">
      <thead>
        <tr className="border-b border-ink text-left text-xs text-ink2">
          <th scope="col" className="w-8 py-0.5 font-normal">#</th>
          <th scope="col" className="py-0.5 pr-4 font-normal">what is done</th>
          <th scope="col" className="py-0.5 font-normal">what is expected</th>
        </tr>
      </thead>
      <tbody>
        {steps.map((step, i) => (
          <tr key={step.id} className="border-b border-rule align-top">
            <td className="py-1 font-mono text-xs text-ink2">{i + 1}</td>
            {step.kind === 'step' ? (
              <>
                <td className="whitespace-pre-line break-words py-1 pr-4">
                  {step.action}
                  {step.attachments.length > 0 && <span className="text-xs text-ink2"> [{step.attachments.map((a) => a.name).join(', ')}]</span>}
                </td>
                <td className="whitespace-pre-line break-words py-1">{step.expected}</td>
              </>
            ) : (
              <td className="py-1" colSpan={2}>
                <UseWords use={step} />
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function UseWords({ use }: { readonly use: Use }) {
  return (
    <>
      → <Named id={usedBy(use)} />
      {typeof use.pinned === 'number' && `, version ${use.pinned}`}
      {use.kind === 'call' && use.rows.kind === 'every' && ', every row'}
      {use.arguments.length > 0 && <span className="block break-words pl-4 text-xs">{use.arguments.map((a) => `${a.id} = ${a.value}`).join(', ')}</span>}
    </>
  );
}
