import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import type { Extension } from '@codemirror/state';
import { EditorView, keymap, placeholder } from '@codemirror/view';
import { useMemo, useState } from 'react';
import { useMembers } from '../api/index.ts';
import { CodeField, offering } from '../editor/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, TextButton } from '../look/index.ts';
import { OfferField } from './OfferField.tsx';

interface Props {
  readonly label: string;
  readonly hint: string;
  /** What the button says. */
  readonly word: string;
  readonly begun?: string;
  /** What stands at the place, for which something else can be offered; null: nothing can. */
  readonly offeredOn?: string | null;
  /** Answers whether it was taken; what was not stays in the field. */
  readonly onSay: (text: string, offer: string | null) => Promise<boolean>;
  /** Absent: the field stays. */
  readonly onClose?: () => void;
  /** Goes to the field at once. */
  readonly focus?: boolean;
}

/** Where a remark is written: Markdown, people of the project after `@`, Ctrl Enter says it. */
export function RemarkField({ label, hint, word, begun = '', offeredOn = null, onSay, onClose, focus = false }: Props) {
  const { project } = useFrame();
  const members = useMembers(project).data;
  const [text, setText] = useState(begun);
  const [busy, setBusy] = useState(false);
  const [offer, setOffer] = useState<string | null>(null);
  const offers = offer !== null && offer !== offeredOn;
  // Who offers a change need not say why.
  const saying = text.trim() === '' && offers ? 'I offer a change.' : text.trim();
  const say = async (): Promise<void> => {
    if (busy || saying === '') return;
    setBusy(true);
    const done = await onSay(saying, offers ? offer : null);
    setBusy(false);
    if (!done) return;
    setText('');
    setOffer(null);
    onClose?.();
  };
  const names = useMemo(() => (members ?? []).map((m) => m.name), [members]);
  const extensions = useMemo(() => writing(label, hint, names), [hint, label, names]);
  return (
    <div
      onKeyDown={(event) => {
        // What the field took itself, as Escape for its list, is done.
        if (event.defaultPrevented) return;
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void say();
        else if (event.key === 'Escape' && onClose !== undefined) onClose();
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      {offer !== null && <OfferField label={label} value={offer} onChange={setOffer} />}
      <CodeField value={text} onChange={setText} extensions={extensions} autoFocus={focus} className="field-boxed !h-auto min-h-14 !px-1.5 !py-1 text-xs leading-5" />
      <p className="mt-1 flex items-center gap-3">
        <Button disabled={busy || saying === ''} title="Ctrl Enter" onClick={() => void say()}>
          {word}
        </Button>
        {offeredOn !== null && offer === null && <TextButton onClick={() => setOffer(offeredOn)}>offer a change</TextButton>}
        {onClose !== undefined && <TextButton onClick={onClose}>Cancel</TextButton>}
      </p>
    </div>
  );
}

function writing(label: string, hint: string, names: readonly string[]): Extension[] {
  return [
    EditorView.lineWrapping,
    placeholder(hint),
    history(),
    offering((at) => peopleOffered(at, names)),
    EditorView.contentAttributes.of({ 'aria-label': label }),
    keymap.of([...historyKeymap, ...defaultKeymap.filter((b) => b.key !== 'Mod-Enter' && b.key !== 'Escape')]),
  ];
}

/** People of the project whose name begins with what is written after `@`. */
export function peopleOffered(at: CompletionContext, names: readonly string[]): CompletionResult | null {
  const typed = at.matchBefore(/(?<![\p{L}\p{N}_.])@[\p{L}\p{N} .]*$/u);
  if (typed === null) return null;
  const begun = typed.text.slice(1).toLowerCase();
  const options = names.filter((name) => name.toLowerCase().startsWith(begun)).map((name): Completion => ({ label: name, apply: `@${name} ` }));
  return options.length === 0 ? null : { from: typed.from, options, filter: false };
}
