import type { ReactNode } from 'react';

/** Notes in the margin of the right page. */
export function Margin({ children }: { readonly children: ReactNode }) {
  return <aside aria-label="Margin notes" className="w-[196px] shrink-0 space-y-3 border-l border-dashed border-rule2 pl-4 text-xs leading-5 text-ink2 max-[1100px]:w-full max-[1100px]:border-l-0 max-[1100px]:border-t max-[1100px]:pl-0 max-[1100px]:pt-4">{children}</aside>;
}

export function MarginNote({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="border-b border-rule pb-3 last:border-b-0">
      <h3 className="text-sm font-semibold text-ink">{title}</h3>
      <div className="mt-0.5">{children}</div>
    </section>
  );
}
