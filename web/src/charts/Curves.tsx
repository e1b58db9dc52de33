import { Suspense, lazy } from 'react';
import type { CurvesShown } from './curve.ts';

const DrawnCurves = lazy(() => import('./DrawnCurves.tsx'));

/** Curves over a common x, in the colours of the theme, as high as `className` says. */
export function Curves({ className, ...shown }: CurvesShown & { readonly className: string }) {
  return (
    <div className={`relative ${className}`}>
      <Suspense fallback={null}>
        <DrawnCurves {...shown} />
      </Suspense>
    </div>
  );
}
