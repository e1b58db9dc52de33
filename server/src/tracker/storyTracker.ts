import type { Defect, TrackerFailure } from '@caderno/contract';
import type { z } from 'zod';

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

/** The tracker did not do its part; nothing of ours is wrong. */
export class TrackerFailed extends Error {
  readonly failure: TrackerFailure;
  constructor(failure: TrackerFailure, options?: ErrorOptions) {
    super(failure, options);
    this.name = 'TrackerFailed';
    this.failure = failure;
  }
}

const PATIENCE_MS = 4_000;
const ATTEMPTS = 4;
const FIRST_PAUSE_MS = 150;
const MOST_BYTES = 4 * 1024 * 1024;

/** Reads JSON of a shape from a tracker: with a limit on time and size, again when it fails for a moment, never elsewhere than asked. */
export async function readJson<T>(address: URL, shape: z.ZodType<T>): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await readOnce(address, shape);
    } catch (error) {
      const passing = error instanceof TrackerFailed && (error.failure === 'slow' || error.failure === 'unreachable');
      if (!passing || attempt === ATTEMPTS) throw error;
      await new Promise((resolve) => setTimeout(resolve, FIRST_PAUSE_MS * 2 ** (attempt - 1)));
    }
  }
}

async function readOnce<T>(address: URL, shape: z.ZodType<T>): Promise<T> {
  const signal = AbortSignal.timeout(PATIENCE_MS);
  const text = await fetchText(address, signal);
  try {
    return shape.parse(JSON.parse(text));
  } catch (cause) {
    throw new TrackerFailed('unreadable', { cause });
  }
}

async function fetchText(address: URL, signal: AbortSignal): Promise<string> {
  try {
    const response = await fetch(address, { signal, redirect: 'error', headers: { accept: 'application/json' } });
    if (response.status >= 500 || response.status === 429) throw new TrackerFailed('unreachable');
    if (!response.ok) throw new TrackerFailed('refused');
    return await bodyOf(response);
  } catch (cause) {
    if (cause instanceof TrackerFailed) throw cause;
    throw new TrackerFailed(signal.aborted ? 'slow' : 'unreachable', { cause });
  }
}

async function bodyOf(response: Response): Promise<string> {
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
