import type { Standing } from '@caderno/core/coverage';
import { STANDING_SHAPES } from './standingShapes.ts';

/** The shape of a standing; every one has a word, too, and colour only helps: filled, half, hollow, hatched, wavy, dotted. */
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
