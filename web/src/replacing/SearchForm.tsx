import { TEXT_PARTS, type Search, type TextPart } from '@caderno/core/replacing';
import { LIMITS } from '@caderno/contract';
import { Choose, Tick, TextBox } from '../look/index.ts';
import { PART_WORD } from './placeWords.ts';

interface Props<S extends string> {
  readonly search: Search;
  readonly onSearch: (search: Search) => void;
  readonly parts: readonly TextPart[];
  readonly onParts: (parts: readonly TextPart[]) => void;
  readonly scope: S;
  readonly scopes: readonly { readonly value: S; readonly name: string }[];
  readonly onScope: (scope: S) => void;
}

const TURNS: readonly { readonly of: 'matchCase' | 'wholeWords' | 'isPattern' | 'inNames'; readonly words: string }[] = [
  { of: 'matchCase', words: 'capitals matter' },
  { of: 'wholeWords', words: 'whole words only' },
  { of: 'isPattern', words: 'a pattern (RE2); $1 is its first bracket' },
  { of: 'inNames', words: 'also in <parameter> names and addresses' },
];

/** What is looked for, what takes its place, how and where. */
export function SearchForm<S extends string>({ search, onSearch, parts, onParts, scope, scopes, onScope }: Props<S>) {
  const set = (part: Partial<Search>): void => onSearch({ ...search, ...part });
  return (
    <form className="text-sm" onSubmit={(event) => event.preventDefault()}>
      <label className="block text-xs text-ink2" htmlFor="looked-for">
        Find
      </label>
      <TextBox id="looked-for" autoFocus value={search.text} maxLength={LIMITS.title} spellCheck={false} autoComplete="off" onChange={(typed) => set({ text: typed })} className={`w-full ${search.isPattern ? 'font-mono' : ''}`} />
      <label className="mt-2 block text-xs text-ink2" htmlFor="replaced-by">
        Replace with
      </label>
      <TextBox id="replaced-by" value={search.replacement} maxLength={LIMITS.note} spellCheck={false} autoComplete="off" onChange={(text) => set({ replacement: text })} className={`w-full ${search.isPattern ? 'font-mono' : ''}`} />
      <div className="mt-2.5">
        <Choose label="Look through" showLabel value={scope} options={scopes} onChange={onScope} />
      </div>
      <fieldset className="mt-3">
        <legend className="text-xs text-ink2">In</legend>
        {TEXT_PARTS.map((part) => (
          <Tick key={part} checked={parts.includes(part)} onChange={(ticked) => onParts(TEXT_PARTS.filter((p) => (p === part ? ticked : parts.includes(p))))}>
            {PART_WORD[part]}
          </Tick>
        ))}
      </fieldset>
      <fieldset className="mt-3">
        <legend className="text-xs text-ink2">How</legend>
        {TURNS.map(({ of, words }) => (
          <Tick key={of} checked={search[of]} onChange={(ticked) => set({ [of]: ticked })}>
            {words}
          </Tick>
        ))}
      </fieldset>
    </form>
  );
}
