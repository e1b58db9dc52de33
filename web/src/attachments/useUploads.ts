import type { Attachment } from '@caderno/core/attachments';
import { LIMITS, refusalSentence } from '@caderno/contract';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { failureSentence, upload } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useLatest } from '../look/index.ts';

/** A file on its way to the project. */
export interface Upload {
  readonly key: string;
  readonly file: File;
  /** How much of it is sent, from 0 to 1. */
  readonly sent: number;
  /** Why it was not kept; null while it is on its way. */
  readonly failure: string | null;
}

export interface Uploads {
  readonly all: readonly Upload[];
  readonly add: (files: readonly File[]) => void;
  readonly again: (upload: Upload) => void;
  /** Stops one that is on its way, and forgets one that failed. */
  readonly drop: (key: string) => void;
}

/** Sends files one after the other and hands each over once it is kept. One that is refused says why, the others go on. */
export function useUploads(onKept: (kept: Attachment) => void): Uploads {
  const { project } = useFrame();
  const [all, setAll] = useState<readonly Upload[]>([]);
  const kept = useLatest(onKept);
  const line = useRef<Promise<void>>(Promise.resolve());
  const stops = useRef(new Map<string, AbortController>());
  useEffect(() => {
    const running = stops.current;
    return () => running.forEach((stop) => stop.abort());
  }, []);
  const set = useCallback((key: string, part: Partial<Upload> | null) => setAll((uploads) => (part === null ? uploads.filter((u) => u.key !== key) : uploads.map((u) => (u.key === key ? { ...u, ...part } : u)))), []);
  const send = useCallback(
    async (key: string, file: File): Promise<void> => {
      const stop = stops.current.get(key);
      if (stop === undefined || stop.signal.aborted) return;
      try {
        kept.current(await upload(project, { name: file.name.slice(-LIMITS.title) || 'picture' }, file, { onSent: (sent) => set(key, { sent }), signal: stop.signal }));
        set(key, null);
      } catch (error) {
        if (!stop.signal.aborted) set(key, { failure: failureSentence(error) });
      } finally {
        stops.current.delete(key);
      }
    },
    [kept, project, set],
  );
  const start = useCallback(
    (upload: Upload): void => {
      stops.current.set(upload.key, new AbortController());
      line.current = line.current.then(() => send(upload.key, upload.file));
    },
    [send],
  );
  return useMemo<Uploads>(
    () => ({
      all,
      add: (files) => {
        const fresh = files.map((file): Upload => ({ key: crypto.randomUUID(), file, sent: 0, failure: file.size > LIMITS.attachment ? refusalSentence({ code: 'attachment_too_large', limit: LIMITS.attachment }) : null }));
        setAll((uploads) => [...uploads, ...fresh]);
        for (const one of fresh) if (one.failure === null) start(one);
      },
      again: (failed) => {
        set(failed.key, { failure: null, sent: 0 });
        start(failed);
      },
      drop: (key) => {
        stops.current.get(key)?.abort();
        set(key, null);
      },
    }),
    [all, set, start],
  );
}
