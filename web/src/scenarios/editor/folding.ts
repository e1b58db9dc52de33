import type { LineRole } from '@caderno/core/scenarios';
import { codeFolding, foldGutter, foldService } from '@codemirror/language';
import type { EditorState, Extension } from '@codemirror/state';
import { readField } from './readField.ts';

/** How deep what a line begins lies: it ends before the next that lies no deeper. */
const DEPTH: Partial<Record<LineRole, number>> = { feature: 0, rule: 1, background: 2, scenario: 2, examples: 3 };

/** What a keyword begins can be folded away: a rule, a scenario, its examples. */
export function folding(): Extension {
  return [codeFolding(), foldGutter({ openText: '⌄', closedText: '›' }), foldService.of((state, from) => foldRange(state, from))];
}

function foldRange(state: EditorState, from: number): { from: number; to: number } | null {
  const { lines } = state.field(readField);
  const line = state.doc.lineAt(from);
  const depth = DEPTH[lines[line.number - 1]?.role ?? 'blank'];
  if (depth === undefined || depth === 0) return null;
  let last = line.number;
  for (let next = line.number; next < lines.length; next += 1) {
    const role = lines[next]?.role ?? 'blank';
    const deeper = DEPTH[role];
    if ((deeper !== undefined && deeper <= depth) || role === 'tags' || role === 'comment') break;
    if (role !== 'blank') last = next + 1;
  }
  return last === line.number ? null : { from: line.to, to: state.doc.line(last).to };
}
