import type { Defect } from '@caderno/contract';
import { fetch } from 'undici';
import type { z } from 'zod';
import { outsideAgent, refuseOutside } from './outside.ts';
import { TrackerFailed } from './trackerFailed.ts';

/** A story as any tracker has it. */
export interface Story {
  readonly key: string;
  readonly title: string;
  /** Markdown. */
  readonly description: string;
  readonly criteria: readonly string[];
  readonly labels: readonly string[];
  readonly status: string;
  /** Address of the story for people. */
  readonly link: string;
}

/** What Caderno asks of a story tracker. Another tracker is one more adapter of this. */
export interface StoryTracker {
  /** All stories of the connected project. @throws TrackerFailed */
  stories(): Promise<Story[]>;
  /** Defects with these words; all recent ones without. @throws TrackerFailed */
  defects(words: string): Promise<Defect[]>;
}

const PATIENCE_MS = 4_000;
/** For all that is asked at once, with every attempt and every page. */
export const WHOLE_PATIENCE_MS = 10_000;
const ATTEMPTS = 4;
const FIRST_PAUSE_MS = 150;
const MOST_BYTES = 4 * 1024 * 1024;

/**
 * Reads JSON of a shape from a tracker: with a limit on time and size, again when it fails for a moment, never elsewhere
 * than asked, and only from hosts that are allowed. `until`: when all has to be done, in `performance.now()`.
 */
export async function readJson<T>(address: URL, shape: z.ZodType<T>, { allowed, until }: Asking): Promise<T> {
  refuseOutside(address, allowed);
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await readOnce(address, shape, until);
    } catch (error) {
      const passing = error instanceof TrackerFailed && (error.failure === 'slow' || error.failure === 'unreachable');
      if (!passing || attempt === ATTEMPTS || performance.now() + FIRST_PAUSE_MS * 2 ** (attempt - 1) > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, FIRST_PAUSE_MS * 2 ** (attempt - 1)));
    }
  }
}

/** Whom may be asked, and until when. */
export interface Asking {
  readonly allowed: readonly string[];
  readonly until: number;
}

async function readOnce<T>(address: URL, shape: z.ZodType<T>, until: number): Promise<T> {
  const signal = AbortSignal.timeout(Math.max(1, Math.ceil(Math.min(PATIENCE_MS, until - performance.now()))));
  const text = await fetchText(address, signal);
  try {
    return shape.parse(JSON.parse(text));
  } catch (cause) {
    throw new TrackerFailed('unreadable', { cause });
  }
}

async function fetchText(address: URL, signal: AbortSignal): Promise<string> {
  try {
    const response = await fetch(address, { signal, redirect: 'error', headers: { accept: 'application/json' }, dispatcher: outsideAgent });
    if (response.status >= 500 || response.status === 429) throw new TrackerFailed('unreachable');
    if (!response.ok) throw new TrackerFailed('refused');
    return await bodyOf(response);
  } catch (cause) {
    if (cause instanceof TrackerFailed) throw cause;
    throw new TrackerFailed(signal.aborted ? 'slow' : 'unreachable', { cause });
  }
}

async function bodyOf(response: Awaited<ReturnType<typeof fetch>>): Promise<string> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of response.body ?? []) {
    const bytes = chunk as Uint8Array;
    size += bytes.length;
    if (size > MOST_BYTES) throw new TrackerFailed('too_large');
    chunks.push(bytes);
  }
  return Buffer.concat(chunks).toString('utf8');
}
