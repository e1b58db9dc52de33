import type { Standing } from '@caderno/core/coverage';
import { STANDING_SHAPES } from './standingShapes.ts';

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
      {STANDING_SHAPES[standing].map(({ path, fill, stroke, width, dash }) => (
        <path key={path} d={path} fill={colour(fill)} stroke={colour(stroke)} strokeWidth={width} strokeDasharray={dash?.join(' ')} />
      ))}
    </svg>
  );
}

function colour(token: string | undefined): string {
  return token === undefined ? 'none' : `var(--color-${token})`;
}
