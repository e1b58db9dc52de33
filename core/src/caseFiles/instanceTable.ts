import type { CaseId } from '../artefacts/index.ts';
import type { CaseContent } from '../cases/index.ts';
import { instanceName, instancesOf, openCase, openedText, type Constants, type Library, type OpenedCase } from '../shared/index.ts';
import { numberedSteps } from './stepText.ts';

/** Rows that a table of instances may have. */
export const MOST_INSTANCE_ROWS = 50_000;

/**
 * Cases as they are executed: a row for each instance, all uses opened and all values in place. For reading and for
 * executing elsewhere; what has no value stands as `<name>`. Null: there are more rows than {@link MOST_INSTANCE_ROWS},
 * or a case cannot be opened whole; `id` is the one at which that was found.
 */
export function instanceTable(cases: Iterable<{ readonly id: CaseId; readonly content: CaseContent }>, library: Library, constants: Constants): { readonly rows: string[][] } | { readonly tooMany: CaseId } {
  const rows: string[][] = [['case', 'title', 'module', 'instance', 'preconditions', 'steps', 'expected results']];
  for (const { id, content } of cases) {
    const opened = openCase(content, library, constants);
    if (opened.kind !== 'opened' || opened.instances + BigInt(rows.length) > BigInt(MOST_INSTANCE_ROWS)) return { tooMany: id };
    for (const instance of instancesOf(opened)) rows.push([id, openedText(opened.scope.open(content.title)), content.module, instanceName(instance), openedText(opened.scope.open(content.preconditions)), ...stepCells(opened)]);
  }
  return { rows };
}

/** Values are those of the instance that was bound last. */
function stepCells({ steps }: OpenedCase): [string, string] {
  const texts = steps.map((line) => (line.kind === 'gone' ? { action: '(gone)', expected: '' } : { action: openedText(line.scope.open(line.step.action)), expected: openedText(line.scope.open(line.step.expected)) }));
  return [numberedSteps(texts.map((t) => t.action), true), numberedSteps(texts.map((t) => t.expected), false)];
}
