import { Suspense, lazy } from 'react';
import type { BarsShown } from './bars.ts';

const DrawnBars = lazy(() => import('./DrawnBars.tsx'));

/** What a bar takes of the height, and what stands around all of them, in pixels. */
const [BAR, AROUND] = [26, 40];

/** Bars that lie below each other, each with its name, in the colours of the theme. */
export function Bars(shown: BarsShown) {
  return (
    <div className="relative" style={{ height: shown.names.length * BAR + AROUND }}>
      <Suspense fallback={null}>
        <DrawnBars {...shown} />
      </Suspense>
    </div>
  );
}
