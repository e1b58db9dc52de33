import { MenuItem } from '@headlessui/react';
import type { ReactNode } from 'react';

interface Props {
  readonly onPick: () => void;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}

/** A line of a menu, and what picking it does. */
export function MenuLine({ onPick, disabled = false, children }: Props) {
  return (
    <MenuItem disabled={disabled}>
      <button type="button" className="block w-full px-4 py-1.5 text-left data-disabled:text-ink2 data-focus:bg-blue-wash" onClick={onPick}>
        {children}
      </button>
    </MenuItem>
  );
}
