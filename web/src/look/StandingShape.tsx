import type { Standing } from '@caderno/core/coverage';

/** Every standing has a shape and a word; colour only helps. */
export const STANDING_WORD: Record<Standing, string> = {
  shown: 'shown',
  linked: 'linked only',
  gap: 'gap',
  waiting: 'waiting for an answer',
  suspect: 'suspect',
  leftOut: 'left out',
};

/** The shape of a standing: filled, half, hollow, hatched, wavy, dotted. */
export function StandingShape({ standing, size = 10 }: { readonly standing: Standing; readonly size?: number }) {
  return (
    <svg viewBox="0 0 12 12" width={size} height={size} className="inline-block shrink-0" aria-hidden="true">
      {SHAPES[standing]}
    </svg>
  );
}

const box = { x: 1, y: 1, width: 10, height: 10, rx: 1.5 };

const SHAPES: Record<Standing, React.ReactNode> = {
  shown: <rect x="0.5" y="0.5" width="11" height="11" rx="1.8" fill="var(--color-pine)" />,
  linked: (
    <>
      <rect {...box} fill="var(--color-page)" stroke="var(--color-ochre)" strokeWidth="1.5" />
      <path d="M1 11V1.8L10.2 11Z" fill="var(--color-ochre)" />
    </>
  ),
  gap: <rect {...box} fill="var(--color-page)" stroke="var(--color-brick)" strokeWidth="1.5" />,
  suspect: (
    <>
      <rect x="2.2" y="0.7" width="7.6" height="6.6" rx="1.2" fill="var(--color-brick-wash)" stroke="var(--color-brick)" strokeWidth="1.3" />
      <path d="M0.3 10.6q1.45-2.6 2.85 0t2.85 0 2.85 0 2.85 0" fill="none" stroke="var(--color-brick)" strokeWidth="1.35" />
    </>
  ),
  waiting: (
    <>
      <rect {...box} fill="var(--color-plum-wash)" stroke="var(--color-plum)" strokeWidth="1.3" />
      <path d="M1.6 7.6 7.6 1.6M2.2 11 11 2.2M6.4 11 11 6.4" stroke="var(--color-plum)" strokeWidth="1.2" />
    </>
  ),
  leftOut: <rect {...box} fill="none" stroke="var(--color-ink3)" strokeWidth="1.3" strokeDasharray="1.6 1.6" />,
};
