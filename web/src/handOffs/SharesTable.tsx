import { personalShares, type HandOffLine } from '@caderno/core/handOffs';
import type { ReactNode } from 'react';
import { countOf, locale, minutesOf } from '../look/index.ts';

interface Props {
  readonly lines: readonly HandOffLine[];
  /** What stands behind a person’s share. */
  readonly action?: (person: string) => ReactNode;
}

/** Who has how much to do. */
export function SharesTable({ lines, action }: Props) {
  const shares = personalShares(lines);
  const automated = lines.filter((line) => line.execution === 'automated');
  return (
    <table className="mt-1 w-full text-sm" aria-label="Who does how much">
      <thead>
        <tr className="border-b border-rule2 text-left text-xs text-ink2">
          <th scope="col" className="py-1 pr-3 font-normal">Person</th>
          <th scope="col" className="py-1 pr-3 text-right font-normal">Instances</th>
          <th scope="col" className="py-1 pr-3 text-right font-normal">Time</th>
          {action !== undefined && <th scope="col" className="font-normal"><span className="sr-only">Files</span></th>}
        </tr>
      </thead>
      <tbody>
        {shares.map(({ person, instances, minutes, withoutMinutes }) => (
          <tr key={person} className="border-b border-rule">
            <th scope="row" className={`py-1 pr-3 text-left font-normal ${person === '' ? 'text-brick' : ''}`}>{person === '' ? 'nobody yet' : person}</th>
            <td className="py-1 pr-3 text-right">{instances.toLocaleString(locale())}</td>
            <td className="whitespace-nowrap py-1 pr-3 text-right" title={withoutMinutes > 0 ? `and ${countOf(withoutMinutes, 'case or scenario', 'cases or scenarios')} without minutes` : undefined}>
              {minutes === 0 && withoutMinutes > 0 ? '–' : minutesOf(minutes)}
              {minutes > 0 && withoutMinutes > 0 && ' +'}
            </td>
            {action !== undefined && <td className="py-1">{action(person)}</td>}
          </tr>
        ))}
        {automated.length > 0 && (
          <tr className="border-b border-rule text-ink2">
            <th scope="row" className="py-1 pr-3 text-left font-normal">automated</th>
            <td className="py-1 pr-3 text-right">{automated.reduce((sum, line) => sum + line.instances, 0).toLocaleString(locale())}</td>
            <td />
            {action !== undefined && <td />}
          </tr>
        )}
      </tbody>
    </table>
  );
}
