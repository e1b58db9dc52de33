import type { ReactNode } from 'react';

/** Notes in the margin of the right page. */
export function Margin({ children }: { readonly children: ReactNode }) {
  return <aside aria-label="Margin notes" className="w-[196px] shrink-0 space-y-3 border-l border-dashed border-rule2 pl-4 text-xs leading-5 text-ink2 max-narrow:w-full max-narrow:border-l-0 max-narrow:border-t max-narrow:pl-0 max-narrow:pt-4">{children}</aside>;
}

export function MarginNote({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-b border-rule pb-3 last:border-b-0">
      <h3 className="text-sm font-semibold text-ink">{title}</h3>
      <div className="mt-0.5">{children}</div>
    </section>
  );
}
