/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import type { ChartConfiguration } from 'chart.js';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import type { Curve } from './curve.ts';

/** The library as far as it is asked: what is drawn, and what is given back. */
const drawn: ChartConfiguration<'line'>[] = [];
let destroyed = 0;
class Chart {
  static register(): void {}
  constructor(_: HTMLCanvasElement, config: ChartConfiguration<'line'>) {
    drawn.push(config);
  }
  destroy(): void {
    destroyed += 1;
  }
}
const none = {};
jest.unstable_mockModule('chart.js', () => ({ Chart, LineController: none, LineElement: none, LinearScale: none, PointElement: none, Tooltip: none }));
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
  expect(first?.data.datasets.map((d) => [d.label, d.stepped, d.borderDash])).toEqual([['then', 'before', []], ['now', false, [5, 4]]]);
  expect(first?.options?.scales).toMatchObject({ x: { max: 5, title: { text: 'minutes' } }, y: { max: 100, title: { text: '%' } } });
  rerender(page(curves, 3));
  await waitFor(() => expect(drawn.at(-1)?.data.datasets.at(-1)).toMatchObject({ label: '', data: [{ x: 3, y: 0 }, { x: 3, y: 100 }] }));
  expect(destroyed).toBe(1);
  unmount();
  expect(destroyed).toBe(2);
});
