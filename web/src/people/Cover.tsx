import type { ReactNode } from 'react';

/** The closed book: what one sees before it is opened. */
export function Cover({ children }: { readonly children: ReactNode }) {
  return (
    <main className="grid min-h-full place-items-center p-8">
      <div className="flex w-full max-w-4xl overflow-hidden rounded-[10px] border border-rule2 bg-page">
        <div className="flex w-64 shrink-0 flex-col justify-between border-l-[14px] border-l-blue bg-blue-wash p-7">
          <div>
            <div className="font-serif text-3xl font-bold text-blue">Caderno</div>
            <p className="mt-3 text-sm text-ink2">The notebook in which test cases are designed from requirements, and what they show is counted before anything is executed.</p>
          </div>
        </div>
        <div className="min-w-0 flex-1 p-8">{children}</div>
      </div>
    </main>
  );
}
