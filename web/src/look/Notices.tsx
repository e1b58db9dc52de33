import { Suspense, lazy, useEffect } from 'react';
import type { toast } from 'sonner';

let tellStanding = (): void => undefined;

/** From then on a notice is seen: one that is given before nobody listens to is lost. */
const standing = new Promise<void>((resolve) => {
  tellStanding = resolve;
});

const Corner = lazy(async () => {
  const { Toaster } = await import('sonner');
  function ListeningCorner() {
    useEffect(tellStanding, []);
    return <Toaster position="bottom-left" closeButton toastOptions={{ className: '!font-sans !text-[13px]' }} />;
  }
  return { default: ListeningCorner };
});

/** Where notices are shown. It is fetched beside the first page, which needs none to be painted. */
export function Notices() {
  return (
    <Suspense>
      <Corner />
    </Suspense>
  );
}

/** Gives a notice as soon as one can be seen; for what is there before {@link Notices} is. Chapters come after it and give theirs themselves. */
export function notify(give: (notices: typeof toast) => void): void {
  void Promise.all([import('sonner'), standing]).then(([{ toast: notices }]) => give(notices));
}
