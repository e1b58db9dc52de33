import { Chart, LineController, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { useMedia, useTheme } from '../look/index.ts';
import type { Curve, CurvesShown } from './curve.ts';

Chart.register(LineController, LineElement, LinearScale, PointElement, Tooltip);

/** Draws curves; the library that does so comes with this file. */
export default function DrawnCurves({ words, curves, xName, yName, xMost, yMost, at }: CurvesShown) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const isDark = useMedia('(prefers-color-scheme: dark)');
  useEffect(() => {
    if (canvas.current === null) return undefined;
    const style = getComputedStyle(canvas.current);
    const colour = (name: string): string => style.getPropertyValue(`--color-${name}`);
    const here: Curve[] = at === undefined ? [] : [{ name: '', colour: 'ink3', drawn: 'line', points: [{ x: at, y: 0 }, { x: at, y: yMost }] }];
    const font = { family: style.fontFamily, size: 11.5 };
    const scale = (name: string, max: number) => ({ type: 'linear' as const, min: 0, max, title: { display: true, text: name, color: colour('ink2'), font }, ticks: { color: colour('ink2'), font, maxTicksLimit: 8 }, grid: { color: colour('rule') }, border: { color: colour('rule2') } });
    const chart = new Chart(canvas.current, {
      type: 'line',
      data: {
        datasets: [...curves, ...here].map((curve) => ({
          label: curve.name,
          data: [...curve.points],
          borderColor: colour(curve.colour),
          backgroundColor: colour(curve.colour),
          borderWidth: curve.name === '' ? 1 : 2,
          borderDash: curve.dashed === true ? [5, 4] : [],
          stepped: curve.drawn === 'stair' ? ('before' as const) : (false as const),
          pointRadius: 0,
          pointHitRadius: curve.name === '' ? 0 : 6,
        })),
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        normalized: true,
        interaction: { mode: 'nearest', intersect: true },
        scales: { x: scale(xName, xMost), y: scale(yName, yMost) },
        plugins: { tooltip: { filter: (item) => item.dataset.label !== '' } },
      },
    });
    return () => chart.destroy();
  }, [at, curves, isDark, theme, xMost, xName, yMost, yName]);
  return <canvas ref={canvas} role="img" aria-label={words} />;
}
