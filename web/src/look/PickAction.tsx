import { Menu, MenuButton } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { MenuChoices } from './MenuChoices.tsx';

interface Props<T extends string> {
  /** What picking does, the verb first. */
  readonly label: string;
  readonly options: readonly { readonly value: T; readonly name: string }[];
  readonly onPick: (value: T) => void;
}

/** An action that asks for one of a few values. */
export function PickAction<T extends string>({ label, options, onPick }: Props<T>) {
  return (
    <Menu>
      <MenuButton className="inline-flex h-chip items-center gap-1 whitespace-nowrap rounded-field border border-rule2 bg-page px-2 text-xs font-medium hover:bg-page2">
        {label}
        <ChevronDown size={12} aria-hidden="true" />
      </MenuButton>
      <MenuChoices end="start" options={options} onPick={onPick} />
    </Menu>
  );
}
