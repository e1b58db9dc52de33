import { MenuItems } from '@headlessui/react';
import { MenuLine } from './MenuLine.tsx';

interface Props<T extends string> {
  /** Under which end of its button it opens. */
  readonly end: 'start' | 'end';
  readonly options: readonly { readonly value: T; readonly name: string }[];
  readonly onPick: (value: T) => void;
}

/** What the button of a menu opens. */
export function MenuChoices<T extends string>({ end, options, onPick }: Props<T>) {
  return (
    <MenuItems anchor={{ to: `bottom ${end}`, gap: 4 }} className="z-50 min-w-36 rounded-panel border border-rule2 bg-page py-1 text-sm focus:outline-none">
      {options.map((option) => (
        <MenuLine key={option.value} onPick={() => onPick(option.value)}>
          {option.name}
        </MenuLine>
      ))}
    </MenuItems>
  );
}
