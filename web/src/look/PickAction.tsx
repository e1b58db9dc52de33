import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';

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
      <MenuButton className="inline-flex h-[26px] items-center gap-1 whitespace-nowrap rounded-[5px] border border-rule2 bg-page px-2 text-xs font-medium hover:bg-page2">
        {label}
        <ChevronDown size={12} aria-hidden="true" />
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom start', gap: 4 }} className="z-50 min-w-36 rounded-[6px] border border-rule2 bg-page py-1 text-sm focus:outline-none">
        {options.map((option) => (
          <MenuItem key={option.value}>
            <button type="button" className="block w-full px-3 py-1.5 text-left data-focus:bg-blue-wash" onClick={() => onPick(option.value)}>
              {option.name}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
