import { appendFileSync } from 'node:fs';

/** A figure beside its budget, in milliseconds unless it says otherwise. */
export interface Figure {
  readonly what: string;
  readonly ms: number;
  readonly budget: number;
  readonly unit?: 'MB' | 'kB' | '%' | '';
}

/** The time of one run of an action. */
export async function timed(action: () => unknown): Promise<number> {
  const began = performance.now();
  await action();
  return performance.now() - began;
}

/** The 95th percentile of many runs. */
export async function p95(runs: number, action: (run: number) => unknown): Promise<number> {
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) times.push(await timed(() => action(run)));
  times.sort((a, b) => a - b);
  return times[Math.floor(runs * 0.95)] ?? 0;
}

/** Prints the figures, and writes them down where they are compared with those of before; answers whether all keep their budgets. */
export function report(figures: readonly Figure[]): boolean {
  for (const { what, ms, budget, unit = 'ms' } of figures) console.log(`${ms <= budget ? 'ok  ' : 'OVER'} ${what.padEnd(62)} ${ms.toFixed(1).padStart(9)} ${unit}   budget ${budget} ${unit}`);
  const file = process.env.CADERNO_FIGURES;
  if (file !== undefined) appendFileSync(file, figures.map((f) => `${JSON.stringify(f)}\n`).join(''));
  return figures.every((f) => f.ms <= f.budget);
}
