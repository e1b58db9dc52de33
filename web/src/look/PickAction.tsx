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
      <MenuButton className="chip-button">
        {label}
        <ChevronDown size={12} aria-hidden="true" />
      </MenuButton>
      <MenuChoices end="start" options={options} onPick={onPick} />
    </Menu>
  );
}
