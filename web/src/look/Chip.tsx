import type { ReactNode } from 'react';

export function Chip({ children, title }: { readonly children: ReactNode; readonly title?: string }) {
  return (
    <span title={title} className="inline-flex h-[22px] items-center gap-1 whitespace-nowrap rounded-field border border-rule2 px-2 text-xs text-ink2">
      {children}
    </span>
  );
}
