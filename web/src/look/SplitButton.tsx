import { Menu, MenuButton } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { MenuChoices } from './MenuChoices.tsx';

interface Props<T extends string> {
  readonly label: string;
  readonly onPress: () => void;
  /** What the arrow beside it leads to. */
  readonly others: string;
  readonly options: readonly { readonly value: T; readonly name: string }[];
  readonly onPick: (value: T) => void;
}

const HALF = 'h-chip bg-blue text-xs font-semibold text-on-accent hover:brightness-110';

/** The page's one accent button, with what is done less often behind an arrow on it. */
export function SplitButton<T extends string>({ label, onPress, others, options, onPick }: Props<T>) {
  return (
    <span className="inline-flex whitespace-nowrap">
      <button type="button" className={`${HALF} rounded-l-[6px] pl-2.5 pr-2`} onClick={onPress}>
        {label}
      </button>
      <Menu>
        <MenuButton aria-label={others} title={others} className={`${HALF} grid w-6 place-items-center rounded-r-[6px] border-l border-on-accent/40`}>
          <ChevronDown size={13} aria-hidden="true" />
        </MenuButton>
        <MenuChoices end="end" options={options} onPick={onPick} />
      </Menu>
    </span>
  );
}
