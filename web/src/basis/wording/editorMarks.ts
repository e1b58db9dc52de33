import type { WordingMark } from '@caderno/core/basis';
import type { Extension } from '@codemirror/state';
import { Decoration, EditorView } from '@codemirror/view';
import { RULE_WORD } from '../../look/index.ts';

/** Weak wording underlined while one writes. Marks lag a keystroke behind the text: those beyond its end are left out. */
export function editorMarks(marks: readonly WordingMark[]): Extension {
  return EditorView.decorations.of((view) => {
    const { length } = view.state.doc;
    const ranges = marks.filter((m) => m.start < m.end && m.end <= length).map((m) => Decoration.mark({ class: 'cad-weak', attributes: { title: RULE_WORD[m.rule] } }).range(m.start, m.end));
    return Decoration.set(ranges, true);
  });
}
