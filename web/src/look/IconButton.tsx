import type { ComponentProps, ReactNode } from 'react';

interface Props extends Omit<ComponentProps<'button'>, 'children' | 'type' | 'aria-label'> {
  /** What it does, and with what: `Move Channel up`. */
  readonly label: string;
  readonly icon: ReactNode;
  /** Beside small text. */
  readonly small?: boolean;
}

/** A small button beside a line; its words are heard, and seen under the pointer. */
export function IconButton({ label, icon, small = false, title = label, className = '', ...rest }: Props) {
  return (
    <button {...rest} type="button" aria-label={label} title={title} className={`grid ${small ? 'size-6' : 'size-7'} shrink-0 place-items-center rounded text-ink2 hover:bg-page2 disabled:opacity-30 ${className}`}>
      {icon}
    </button>
  );
}
