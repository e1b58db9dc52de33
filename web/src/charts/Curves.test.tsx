/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import type { ChartConfiguration } from 'chart.js';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { followPrinting, startTheme } from '../look/index.ts';
import type { Curve } from './curve.ts';

/** The library as far as it is asked: what is drawn, and what is given back. */
const drawn: ChartConfiguration<'line' | 'bar'>[] = [];
let destroyed = 0;
class Chart {
  static register(): void {}
  constructor(_: HTMLCanvasElement, config: ChartConfiguration<'line' | 'bar'>) {
    drawn.push(config);
  }
  destroy(): void {
    destroyed += 1;
  }
}
const none = {};
jest.unstable_mockModule('chart.js', () => ({ BarController: none, BarElement: none, Chart, LineController: none, LineElement: none, LinearScale: none, PointElement: none, Tooltip: none }));
const { Curves } = await import('./Curves.tsx');
// Comes late otherwise, as it does for people.
await import('./DrawnCurves.tsx');
afterEach(cleanup);

const curve = (name: string, more: Partial<Curve> = {}): Curve => ({ name, colour: 'blue', drawn: 'stair', points: [{ x: 0, y: 0 }, { x: 5, y: 100 }], ...more });
const page = (curves: readonly Curve[], at?: number) => <Curves className="h-56" words="Half after 3 min" curves={curves} xName="minutes" yName="%" xMost={5} yMost={100} {...(at === undefined ? {} : { at })} />;

test('curves are drawn with their names and scales, told in words, drawn anew when they change, and given back', async () => {
  const curves = [curve('then'), curve('now', { dashed: true, drawn: 'line' })];
  const { rerender, unmount } = render(page(curves));
  await screen.findByRole('img', { name: 'Half after 3 min' });
  await waitFor(() => expect(drawn).toHaveLength(1));
  const [first] = drawn;
  expect(first?.data.datasets.map((d) => d.type === 'line' && [d.label, d.stepped, d.borderDash])).toEqual([['then', 'before', []], ['now', false, [5, 4]]]);
  expect(first?.options?.scales).toMatchObject({ x: { max: 5, title: { text: 'minutes' } }, y: { max: 100, title: { text: '%' } } });
  rerender(page(curves, 3));
  await waitFor(() => expect(drawn.at(-1)?.data.datasets.at(-1)).toMatchObject({ label: '', data: [{ x: 3, y: 0 }, { x: 3, y: 100 }] }));
  expect(destroyed).toBe(1);
  unmount();
  expect(destroyed).toBe(2);
});

test('bars stand on each other, marks have their names above lines, values are told in words, and a click says which point it was', async () => {
  drawn.length = 0;
  const clicked: number[] = [];
  const bars = [curve('shown', { drawn: 'bar', points: [{ x: 0, y: 4 }, { x: 2, y: null }] }), curve('gap', { drawn: 'bar', points: [{ x: 0, y: 1 }, { x: 2, y: 3 }] })];
  const marks = [{ x: 1, name: 'B-1' }, { x: 1.1, name: 'B-2' }, { x: 1.4, name: 'B-3' }];
  render(<Curves className="h-56" words="Bars" curves={bars} xName="" yName="items" xMost={2} yMost={5} marks={marks} xWords={dayOf} yWords={itemsOf} onPoint={(place) => clicked.push(place)} />);
  await waitFor(() => expect(drawn).toHaveLength(1));
  const config = drawn[0]!;
  expect(config.data.datasets.map((d) => [d.type, d.data])).toEqual([['bar', [{ x: 0, y: 4 }, { x: 2, y: null }]], ['bar', [{ x: 0, y: 1 }, { x: 2, y: 3 }]]]);
  expect(config.options?.scales).toMatchObject({ x: { stacked: true, title: { display: false } }, y: { stacked: true } });
  const { callbacks } = config.options!.plugins!.tooltip!;
  const item = { dataset: { label: 'gap' }, parsed: { x: 2, y: 3 } };
  expect([(callbacks!.title as unknown as (items: object[]) => string)([item]), (callbacks!.label as unknown as (item: object) => string)(item)]).toEqual(['day 2', 'gap: 3 items']);
  (config.options!.onClick as unknown as (event: object, elements: object[]) => void)({}, [{ index: 1 }]);
  (config.options!.onClick as unknown as (event: object, elements: object[]) => void)({}, []);
  expect(clicked).toEqual([1]);
  const told: unknown[] = [];
  const pen = { measureText: () => ({ width: 24 }), save: () => undefined, restore: () => undefined, setLineDash: () => undefined, beginPath: () => undefined, stroke: () => undefined, fillText: (...t: unknown[]) => told.push(t), moveTo: (...t: unknown[]) => told.push(t), lineTo: (...t: unknown[]) => told.push(t) };
  (config.plugins![0]!.afterDatasetsDraw as unknown as (chart: object) => void)({ ctx: pen, scales: { x: { getPixelForValue: (x: number) => x * 100 } }, chartArea: { top: 20, bottom: 200 } });
  // The second name would stand on the first.
  expect(told).toEqual([['B-1', 100, 15], [100, 20], [100, 200], ['B-2', expect.closeTo(110), 3], [expect.closeTo(110), 20], [expect.closeTo(110), 200], ['B-3', 140, 15], [140, 20], [140, 200]]);
});

test('on paper it is day: curves are drawn anew with its colours, and again as they were when the paper is out', async () => {
  drawn.length = 0;
  localStorage.setItem('caderno-theme', 'night');
  startTheme();
  followPrinting();
  document.head.insertAdjacentHTML('beforeend', `<style id="colours">:root[data-theme='night'] canvas { --color-blue: white; } :root[data-theme='day'] canvas { --color-blue: navy; }</style>`);
  render(page([curve('then')]));
  await waitFor(() => expect(drawn).toHaveLength(1));
  act(() => void window.dispatchEvent(new Event('beforeprint')));
  act(() => void window.dispatchEvent(new Event('afterprint')));
  expect(drawn.map((config) => config.data.datasets[0]?.borderColor)).toEqual(['white', 'navy', 'white']);
  expect(document.documentElement.dataset.theme).toBe('night');
  localStorage.clear();
  document.querySelector('#colours')?.remove();
});

const dayOf = (x: number): string => `day ${x}`;
const itemsOf = (y: number): string => `${y} items`;
