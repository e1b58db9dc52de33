import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Figure } from '../measure.ts';

/** Somebody who works on while others attack: asks for health, and saves a case of another project. */
export interface Witness {
  readonly origin: string;
  readonly cookie: string;
  readonly pid: number;
  readonly project: string;
  readonly caseId: string;
  readonly content: object;
}

const HEALTH_EVERY_MS = 50;
const SAVE_EVERY_MS = 150;

/** Works on until the attack is over, at least for some seconds; answers the figures of it. */
export async function witnessed(witness: Witness, name: string, attack: () => Promise<string>): Promise<{ readonly figures: readonly Figure[]; readonly told: string }> {
  resetMemoryMark(witness.pid);
  const health: number[] = [];
  const saves: number[] = [];
  let over = false;
  const asking = repeat(
    () => over,
    HEALTH_EVERY_MS,
    health,
    async () => {
      if (!(await fetch(`${witness.origin}/healthz`)).ok) throw new Error('health is not well');
    },
  );
  const saving = repeat(
    () => over,
    SAVE_EVERY_MS,
    saves,
    () => save(witness),
  );
  const [told] = await Promise.all([attack(), sleep(3_000)]);
  over = true;
  await Promise.all([asking, saving]);
  return {
    told,
    figures: [
      { what: `${name}: health, p95`, ms: p95(health), budget: 200 },
      { what: `${name}: others’ saves, p95 of ${saves.length}`, ms: p95(saves), budget: 500 },
      { what: `${name}: most memory`, ms: mostMemory(witness.pid), budget: 1_024, unit: 'MB' },
    ],
  };
}

async function repeat(isOver: () => boolean, everyMs: number, times: number[], action: () => Promise<void>): Promise<void> {
  while (!isOver()) {
    const began = performance.now();
    await action();
    times.push(performance.now() - began);
    await sleep(everyMs);
  }
}

let version = 0;

async function save({ origin, cookie, project, caseId, content }: Witness): Promise<void> {
  if (version === 0) version = ((await (await fetch(`${origin}/api/v1/projects/${project}/artefacts/${caseId}`, { headers: { cookie } })).json()) as { summary: { version: number } }).summary.version;
  const response = await fetch(`${origin}/api/v1/projects/${project}/artefacts/${caseId}`, {
    method: 'PUT',
    headers: { cookie, 'content-type': 'application/json', 'if-match': `"${version}"`, 'command-id': randomUUID() },
    body: JSON.stringify({ kind: 'case', content: { ...content, objective: `version ${version}` }, note: '' }),
  });
  if (!response.ok) throw new Error(`A save among the attack answered ${response.status}: ${await response.text()}`);
  version += 1;
}

function p95(times: number[]): number {
  return times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0;
}

/** The kernel keeps the most resident memory of a process; writing 5 begins anew (proc(5), clear_refs). */
function resetMemoryMark(pid: number): void {
  writeFileSync(`/proc/${pid}/clear_refs`, '5');
}

function mostMemory(pid: number): number {
  return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
}
