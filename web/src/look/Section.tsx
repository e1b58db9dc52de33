import type { ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly aside?: ReactNode;
  readonly actions?: ReactNode;
  readonly children: ReactNode;
  readonly className?: string;
}

/** A part of a page: serif heading on a ruled line, a remark beside it, actions at the right. */
export function Section({ title, aside, actions, children, className = '' }: Props) {
  return (
    <section className={`mt-5 ${className}`} aria-label={title}>
      <header className="flex min-h-8 flex-wrap items-end gap-x-3 border-b border-ink pb-1">
        <h3 className="font-serif text-lg font-semibold leading-6">{title}</h3>
        {aside !== undefined && <div className="pb-px text-xs text-ink2">{aside}</div>}
        {actions !== undefined && <div className="ml-auto flex items-center gap-3 text-xs">{actions}</div>}
      </header>
      {children}
    </section>
  );
}
