import type { ArtefactKind } from '@caderno/core/artefacts';
import { completed, parseQuery, partAt, type QueryProblem } from '@caderno/core/find';
import { LIMITS } from '@caderno/contract';
import { useCombobox } from 'downshift';
import { useId, useLayoutEffect, useState } from 'react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { KIND_NAME } from '../look/index.ts';
import { queryProblemSentence } from './queryProblemSentence.ts';
import { useOffered, type Offer } from './useOffered.ts';

interface Props {
  readonly kind: ArtefactKind;
  readonly query: string;
  readonly onQuery: (query: string) => void;
  /** What the query names and the project does not have. */
  readonly absent?: readonly string[];
}

/** Texts on their way to the address at a time. */
const MOST_SENT = 50;

/** The line a query is written in: fields and values are offered while typing, and what cannot be understood is marked where it stands. */
export function QueryLine({ kind, query, onQuery, absent = [] }: Props) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  // The text is here and not in the address: a caret stays where it is only when the text is written back at once.
  const [text, setText] = useState(query);
  const [known, setKnown] = useState({ query, sent: [] as readonly string[] });
  if (query !== known.query) {
    // The address comes behind what is typed: what this line wrote itself is no news.
    const own = known.sent.lastIndexOf(query);
    setKnown({ query, sent: own < 0 ? [] : known.sent.slice(own + 1) });
    if (own < 0) setText(query);
  }
  const [caret, setCaret] = useState(query.length);
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  const [marks, setMarks] = useState<HTMLDivElement | null>(null);
  const note = useId();
  const part = partAt(text, caret, fields);
  const offered = useOffered(project, kind, part);
  const write = (next: string, at: number): void => {
    setText(next);
    setKnown((now) => ({ ...now, sent: [...now.sent, next].slice(-MOST_SENT) }));
    setCaret(at);
    onQuery(next);
  };
  const take = (offer: Offer | null): void => {
    if (offer === null || part === null) return;
    const next = completed(text, part, offer.text);
    write(next.text, next.caret);
  };
  const { isOpen, highlightedIndex, getInputProps, getMenuProps, getItemProps } = useCombobox<Offer>({
    items: [...offered],
    inputValue: text,
    selectedItem: null,
    itemToString: () => text,
    onSelectedItemChange: ({ selectedItem }) => take(selectedItem),
    stateReducer: (state, { type, changes }) => {
      // A click places the caret, and leaving the line takes nothing that was not chosen.
      if (type === useCombobox.stateChangeTypes.InputClick) return { ...changes, isOpen: state.isOpen };
      if (type === useCombobox.stateChangeTypes.InputBlur) return { ...changes, selectedItem: state.selectedItem, inputValue: state.inputValue };
      // Behind a field its values come next.
      if (changes.selectedItem != null && part?.field === null) return { ...changes, isOpen: true, inputValue: state.inputValue };
      return { ...changes, inputValue: type === useCombobox.stateChangeTypes.InputChange ? (changes.inputValue ?? '') : state.inputValue };
    },
  });
  useLayoutEffect(() => {
    if (input !== null && document.activeElement === input && input.selectionStart === input.selectionEnd) input.setSelectionRange(caret, caret);
  }, [caret, input, text]);
  const { problems } = parseQuery(text, fields);
  const shown = isOpen && offered.length > 0;
  const many = KIND_NAME[kind][1];
  return (
    <div className="relative min-w-0 flex-1">
      <div className="relative">
        <input
          {...getInputProps({
            ref: setInput,
            onChange: (event) => write(event.currentTarget.value, event.currentTarget.selectionStart ?? event.currentTarget.value.length),
            onSelect: (event) => setCaret(event.currentTarget.selectionStart ?? 0),
            onScroll: (event) => marks?.scrollTo({ left: event.currentTarget.scrollLeft }),
          })}
          aria-label={`Filter the ${many} by a query`}
          aria-labelledby={undefined}
          aria-describedby={note}
          placeholder="Words, or fields as state:draft"
          maxLength={LIMITS.title}
          spellCheck={false}
          autoComplete="off"
          className="field-boxed w-full bg-page2"
        />
        <Marks text={text} problems={problems} onMarks={setMarks} />
      </div>
      <ul
        {...getMenuProps({}, { suppressRefError: true })}
        aria-label="What can be written here"
        aria-labelledby={undefined}
        className={`absolute inset-x-0 top-full z-30 mt-1 max-h-72 overflow-y-auto rounded-panel border border-rule2 bg-page py-1 text-sm ${shown ? '' : 'hidden'}`}
      >
        {shown &&
          offered.map((offer, index) => (
            <li key={offer.text} {...getItemProps({ item: offer, index })} className={`flex cursor-pointer items-baseline gap-3 px-3 py-1.5 ${index === highlightedIndex ? 'bg-blue-wash' : ''}`}>
              <span className="font-mono text-xs">{offer.text}</span>
              <span className="ml-auto truncate text-xs text-ink2">{offer.meaning}</span>
            </li>
          ))}
      </ul>
      <p id={note} className={`text-xs text-brick ${problems.length + absent.length === 0 ? '' : 'pt-1'}`}>
        {[...problems.map((problem) => queryProblemSentence(problem, kind, fields)), ...absent].join(' ')}
      </p>
    </div>
  );
}

/** The text of the query once more, unseen, with a wave below what is not understood. */
function Marks({ text, problems, onMarks }: { readonly text: string; readonly problems: readonly QueryProblem[]; readonly onMarks: (marks: HTMLDivElement | null) => void }) {
  return (
    <div ref={onMarks} aria-hidden="true" className="field-boxed pointer-events-none absolute inset-0 overflow-hidden whitespace-pre border-transparent bg-transparent text-transparent">
      {piecesOf(text, problems).map(({ at, piece, isProblem }) =>
        isProblem ? (
          <mark key={at} className="bg-transparent text-transparent underline decoration-brick decoration-wavy decoration-1 underline-offset-4">
            {piece}
          </mark>
        ) : (
          <span key={at}>{piece}</span>
        ),
      )}
    </div>
  );
}

interface Piece {
  readonly at: number;
  readonly piece: string;
  readonly isProblem: boolean;
}

function piecesOf(text: string, problems: readonly QueryProblem[]): Piece[] {
  const pieces: Piece[] = [];
  let from = 0;
  for (const { at, length } of problems) {
    if (at < from) continue;
    pieces.push({ at: from, piece: text.slice(from, at), isProblem: false }, { at, piece: text.slice(at, at + length), isProblem: true });
    from = at + length;
  }
  return [...pieces, { at: from, piece: text.slice(from), isProblem: false }].filter(({ piece }) => piece !== '');
}
