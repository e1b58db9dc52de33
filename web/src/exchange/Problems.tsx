import type { FileProblem } from '@caderno/core/exchange';
import { useState } from 'react';
import { fileProblemSentence } from '../files/index.ts';
import { TextButton } from '../look/index.ts';

const FEW = 8;

interface Props {
  readonly preview: { readonly problems: readonly FileProblem[]; readonly counts: { readonly errors: number; readonly warnings: number } };
  /** What a place in the file is counted in. */
  readonly places?: 'line' | 'paragraph';
}

/** What is wrong in a file, by its place; the worst first. */
export function Problems({ preview: { problems, counts }, places = 'line' }: Props) {
  const [all, setAll] = useState(false);
  if (problems.length === 0) return null;
  const total = counts.errors + counts.warnings;
  const shown = all ? problems : problems.slice(0, FEW);
  return (
    <div className="mt-3">
      <ul aria-label="Problems in the file" className="text-sm">
        {shown.map((problem, i) => (
          <li key={i} className="grid grid-cols-[64px_150px_1fr] gap-x-3 border-b border-rule py-1">
            <span className={problem.severity === 'error' ? 'font-semibold text-brick' : 'text-ochre-ink'}>{problem.severity === 'error' ? 'error' : 'look at'}</span>
            <span className="truncate font-mono text-xs leading-5 text-ink2">
              {problem.line === null ? 'whole file' : `${places} ${problem.line}`}
              {problem.column !== null && `, ${problem.column}`}
            </span>
            <span>{fileProblemSentence(problem)}</span>
          </li>
        ))}
      </ul>
      {!all && total > FEW && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          all {total}
        </TextButton>
      )}
      {all && total > problems.length && <p className="mt-1 text-xs text-ink2">The first {problems.length} of {total}.</p>}
    </div>
  );
}
