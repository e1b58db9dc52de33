import type { ReactNode } from 'react';

/** An empty page says what belongs there and offers the first action. */
export function Empty({ title, children, action }: { readonly title: string; readonly children: ReactNode; readonly action?: ReactNode }) {
  return (
    <div className="mx-auto mt-20 max-w-md px-6 text-center">
      <h2 className="font-serif text-xl font-semibold">{title}</h2>
      <p className="mt-2 text-ink2">{children}</p>
      {action !== undefined && <div className="mt-4 flex justify-center gap-2">{action}</div>}
    </div>
  );
}
