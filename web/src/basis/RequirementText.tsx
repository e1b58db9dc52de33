import type { RequirementContent, WordingMark } from '@caderno/core/basis';
import { Pencil } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import { Section, TextButton, RULE_WORD } from '../look/index.ts';
import { MarkableText, type TextSpan } from '../text/index.ts';
import { MarkdownEditor } from './MarkdownEditor.tsx';

interface Props {
  readonly content: RequirementContent;
  readonly marks: readonly WordingMark[];
  readonly canEdit: boolean;
  readonly onText: (text: string) => void;
  /** Raises a question about a stretch of the text. */
  readonly onAsk: (start: number, end: number) => void;
  /** Says something of a stretch. */
  readonly onRemark: (start: number, end: number) => void;
  /** Makes a condition of a stretch; absent while there is a draft, whose words are not in a version yet. */
  readonly onCondition?: (start: number, end: number) => void;
  /** Absent while there is a draft: it would be left behind. */
  readonly onSplit?: () => void;
  readonly onMerge?: () => void;
}

/** The text to read, with what is weak underlined; marking words offers a condition of them, or a question about them. */
export function RequirementText({ content, marks, canEdit, onText, onAsk, onRemark, onCondition, onSplit, onMerge }: Props) {
  const [writing, setWriting] = useState(false);
  const read = useCallback(() => setWriting(false), []);
  const spans = useMemo(() => marks.map((m): TextSpan => ({ id: `${m.rule}-${m.start}`, start: m.start, end: m.end, className: 'cad-weak', title: RULE_WORD[m.rule] })), [marks]);
  const actions = canEdit && (
    <>
      {onSplit !== undefined && <TextButton onClick={onSplit}>Split</TextButton>}
      {onMerge !== undefined && <TextButton onClick={onMerge}>Merge</TextButton>}
      <TextButton onClick={() => setWriting((w) => !w)} className="inline-flex items-center gap-1 text-blue">
        <Pencil size={12} aria-hidden="true" /> {writing ? 'Read it' : 'Edit the text'}
      </TextButton>
    </>
  );
  return (
    <Section title="Text" aside={writing ? 'Markdown; Escape goes back to reading' : undefined} actions={actions}>
      <div data-place="text" className="mt-3">
        {writing ? (
          <MarkdownEditor value={content.text} marks={marks} onChange={onText} onLeave={read} />
        ) : content.text.trim() === '' ? (
          <p className="text-ink2">No text yet. {canEdit && <TextButton onClick={() => setWriting(true)}>Write it</TextButton>}</p>
        ) : (
          <MarkableText text={content.text} spans={spans} marks={[...(onCondition === undefined || !canEdit ? [] : [{ label: 'Make a condition', run: onCondition }]), ...(canEdit ? [{ label: 'Ask a question', run: onAsk }] : []), { label: 'Remark', run: onRemark }]} />
        )}
      </div>
    </Section>
  );
}
