import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { useMedia, usePrinting, useTheme } from '../look/index.ts';
import type { BarsShown } from './bars.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** Longer names are cut: the bars need the room. */
const LONGEST_NAME = 30;

/** Draws bars; the library that does so comes with this file. */
export default function DrawnBars({ words, names, parts, valueWords, onBar }: BarsShown) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const isDark = useMedia('(prefers-color-scheme: dark)');
  const printing = usePrinting();
  useEffect(() => {
    if (canvas.current === null) return undefined;
    const style = getComputedStyle(canvas.current);
    const colour = (name: string): string => style.getPropertyValue(`--color-${name}`);
    const font = { family: style.fontFamily, size: 11.5 };
    const chart = new Chart<'bar', (number | null)[], string>(canvas.current, {
      type: 'bar',
      data: { labels: names.map((name) => (name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME)}…` : name)), datasets: parts.map((part) => ({ label: part.name, data: [...part.values], backgroundColor: colour(part.colour), maxBarThickness: 18 })) },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { stacked: true, min: 0, ticks: { color: colour('ink2'), font, maxTicksLimit: 6, callback: (value) => valueWords(Number(value)) }, grid: { color: colour('rule') }, border: { color: colour('rule2') } },
          y: { stacked: true, ticks: { color: colour('ink'), font, autoSkip: false }, grid: { display: false }, border: { color: colour('rule2') } },
        },
        plugins: { tooltip: { callbacks: { title: ([item]) => (item === undefined ? '' : (names[item.dataIndex] ?? '')), label: (item) => [item.dataset.label, valueWords(item.parsed.x ?? 0)].filter((text) => text !== '').join(': ') } } },
        ...(onBar === undefined ? {} : { onClick: (_, [element]) => element !== undefined && onBar(element.index, element.datasetIndex) }),
      },
    });
    return () => chart.destroy();
  }, [isDark, names, onBar, parts, printing, theme, valueWords]);
  // Paper may be narrower than the page it was drawn for.
  return <canvas ref={canvas} className="print:h-auto! print:w-full!" role="img" aria-label={words} />;
}
