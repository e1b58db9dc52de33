import { linter, type Diagnostic } from '@codemirror/lint';
import type { Extension } from '@codemirror/state';
import { featureProblemSentence } from '@caderno/contract';
import { readField } from './readField.ts';

/** Problems where they stand, told when the pointer or the cursor is there; a moment after the last key, as half a line is wrong. */
export function problems(): Extension {
  return linter(
    ({ state }) =>
      state.field(readField).problems.map((problem): Diagnostic => {
        const line = state.doc.line(Math.min(problem.line, state.doc.lines));
        const from = Math.min(line.to, line.from + Math.max(0, problem.column - 1));
        return { from, to: line.to, severity: 'error', message: featureProblemSentence(problem) };
      }),
    { delay: 400 },
  );
}
