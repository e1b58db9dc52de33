import { BarController, BarElement, Chart, LineController, LineElement, LinearScale, PointElement, Tooltip, type ChartDataset, type Plugin } from 'chart.js';
import { useEffect, useRef } from 'react';
import { useMedia, usePrinting, useTheme } from '../look/index.ts';
import type { Curve, CurvesShown } from './curve.ts';

Chart.register(BarController, BarElement, LineController, LineElement, LinearScale, PointElement, Tooltip);

/** Draws curves; the library that does so comes with this file. */
export default function DrawnCurves({ words, curves, xName, yName, xMost, yMost, yStep, at, marks, xWords, yWords, onPoint }: CurvesShown) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const isDark = useMedia('(prefers-color-scheme: dark)');
  const printing = usePrinting();
  useEffect(() => {
    if (canvas.current === null) return undefined;
    const style = getComputedStyle(canvas.current);
    const colour = (name: string): string => style.getPropertyValue(`--color-${name}`);
    const font = { family: style.fontFamily, size: 11.5 };
    const isStacked = curves.some((curve) => curve.drawn === 'bar');
    const scale = (name: string, max: number, inWords: ((value: number) => string) | undefined, step?: number) => ({
      type: 'linear' as const, min: 0, max, stacked: isStacked, title: { display: name !== '', text: name, color: colour('ink2'), font },
      ticks: { color: colour('ink2'), font, maxTicksLimit: 8, ...(step === undefined ? {} : { stepSize: step }), ...(inWords === undefined ? {} : { callback: (value: number | string) => inWords(Number(value)) }) },
      grid: { color: colour('rule') }, border: { color: colour('rule2') },
    });
    const here: Curve[] = at === undefined ? [] : [{ name: '', colour: 'ink3', drawn: 'line', points: [{ x: at, y: 0 }, { x: at, y: yMost }] }];
    const chart = new Chart<'line' | 'bar', { x: number; y: number | null }[]>(canvas.current, {
      type: 'line',
      data: { datasets: [...curves, ...here].map((curve) => dataset(curve, colour(curve.colour), onPoint !== undefined)) },
      options: {
        animation: false,
        maintainAspectRatio: false,
        normalized: true,
        layout: { padding: { top: marks === undefined ? 0 : marks.length === 1 ? 16 : 28 } },
        interaction: onPoint === undefined ? { mode: 'nearest', intersect: true } : { mode: 'nearest', axis: 'x', intersect: false },
        scales: { x: scale(xName, xMost, xWords), y: scale(yName, yMost, yWords, yStep) },
        plugins: {
          tooltip: {
            filter: (item) => item.dataset.label !== '',
            callbacks: {
              ...(xWords === undefined ? {} : { title: ([item]) => (item === undefined ? '' : xWords(item.parsed.x ?? 0)) }),
              ...(yWords === undefined ? {} : { label: (item) => `${item.dataset.label ?? ''}: ${yWords(item.parsed.y ?? 0)}` }),
            },
          },
        },
        ...(onPoint === undefined ? {} : { onClick: (_, [element]) => element !== undefined && onPoint(element.index) }),
      },
      plugins: [namedLines(marks ?? [], colour('ink2'), `${font.size}px ${font.family}`)],
    });
    return () => chart.destroy();
  }, [at, curves, isDark, marks, onPoint, printing, theme, xMost, xName, xWords, yMost, yName, yStep, yWords]);
  // Paper may be narrower than the page it was drawn for.
  return <canvas ref={canvas} className="print:h-auto! print:w-full!" role="img" aria-label={words} />;
}

function dataset(curve: Curve, colour: string, hasPoints: boolean): ChartDataset<'line' | 'bar', { x: number; y: number | null }[]> {
  const isHelp = curve.name === '';
  const common = { label: curve.name, data: [...curve.points], borderColor: colour, backgroundColor: colour };
  if (curve.drawn === 'bar') return { ...common, type: 'bar', maxBarThickness: 26 };
  return {
    ...common,
    type: 'line',
    // Points at the edge are seen whole.
    clip: 6,
    borderWidth: isHelp ? 1 : 2,
    borderDash: curve.dashed === true ? [5, 4] : [],
    stepped: curve.drawn === 'stair' ? 'before' : false,
    pointRadius: hasPoints && !isHelp ? 2.5 : 0,
    pointHitRadius: isHelp ? 0 : 6,
  };
}

const [ABOVE, BETWEEN_NAMES] = [12, 6];

/** Draws lines at marks, with their names above, higher where they would stand on another; not as curves, which would be pointed at. */
function namedLines(marks: NonNullable<CurvesShown['marks']>, colour: string, font: string): Plugin<'line' | 'bar'> {
  return {
    id: 'namedLines',
    afterDatasetsDraw: ({ ctx, scales, chartArea: { top, bottom } }) => {
      ctx.save();
      ctx.fillStyle = colour;
      ctx.strokeStyle = colour;
      ctx.font = font;
      ctx.textAlign = 'center';
      ctx.setLineDash([4, 3]);
      const ends = [-Infinity, -Infinity];
      for (const { x, name } of marks) {
        const at = scales.x?.getPixelForValue(x) ?? 0;
        const half = ctx.measureText(name).width / 2;
        const row = Math.max(0, ends.findIndex((end) => at - half > end + BETWEEN_NAMES));
        ends[row] = at + half;
        ctx.fillText(name, at, top - 5 - row * ABOVE);
        ctx.beginPath();
        ctx.moveTo(at, top);
        ctx.lineTo(at, bottom);
        ctx.stroke();
      }
      ctx.restore();
    },
  };
}
