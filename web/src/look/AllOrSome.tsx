import { useState, type ReactNode } from 'react';
import { Answer } from './Answer.tsx';
import { Button } from './Button.tsx';
import { Dialog } from './Dialog.tsx';
import { TickIn } from './Tick.tsx';

interface Props<T extends string> {
  readonly title: string;
  /** The two answers in words. */
  readonly all: string;
  readonly some: string;
  /** What there is to choose from, in words. */
  readonly label: string;
  /** `aside` is said behind the name. */
  readonly items: readonly { readonly id: T; readonly name: string; readonly aside?: string }[];
  /** Said where there is nothing to choose from. */
  readonly none: string;
  /** What is chosen so far; null: all. */
  readonly chosen: readonly T[] | null;
  /** What the answer means. */
  readonly children: ReactNode;
  readonly onSet: (chosen: readonly T[] | null) => void;
  readonly onClose: () => void;
}

/** Asks whether something is for all, or for which. */
export function AllOrSome<T extends string>({ title, all, some, label, items, none, chosen: before, children, onSet, onClose }: Props<T>) {
  const [isSome, setIsSome] = useState(before !== null);
  const [chosen, setChosen] = useState<readonly T[]>(before ?? []);
  const isReady = !isSome || chosen.length > 0;
  return (
    <Dialog title={title} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isReady) return;
          onSet(isSome ? chosen : null);
          onClose();
        }}
      >
        {[false, true].map((answer) => (
          <Answer key={String(answer)} name="all-or-some" checked={isSome === answer} onPick={() => setIsSome(answer)}>
            {answer ? some : all}
          </Answer>
        ))}
        <ul aria-label={label} className="ml-6 max-h-56 overflow-y-auto">
          {items.map(({ id, name, aside }) => (
            <li key={id}>
              <TickIn item={id} of={chosen} disabled={!isSome} onChange={setChosen}>
                {name}
                {aside !== undefined && <span className="text-ink2">{aside}</span>}
              </TickIn>
            </li>
          ))}
        </ul>
        {items.length === 0 && <p className="ml-6 text-ink2">{none}</p>}
        <p className="mt-2 max-w-[60ch] text-xs text-ink2">{children}</p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={!isReady}>
            Set
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
