import type { RequirementId } from '@caderno/core/artefacts';
import type { WordingMark } from '@caderno/core/basis';
import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import { useBasisTexts, useSettings } from '../../api/index.ts';
import type { WordingWorker } from './wording.worker.ts';

let shared: Remote<WordingWorker> | null = null;

function worker(): Remote<WordingWorker> {
  shared ??= wrap<WordingWorker>(new Worker(new URL('./wording.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

const NONE: Readonly<Record<string, number>> = {};

/** How many weak words stand in each requirement that has any, looked for beside the page; null while it is not known. */
export function useWordingCounts(project: string): Readonly<Record<string, number>> | null {
  const texts = useBasisTexts(project).data;
  const settings = useSettings(project).data?.settings;
  const [counts, setCounts] = useState<Readonly<Record<string, number>> | null>(null);
  useEffect(() => {
    if (texts === undefined || settings === undefined) return undefined;
    let wanted = true;
    void worker()
      .look(texts, settings.glossary, settings.rulesOff)
      .then((found) => {
        if (wanted) setCounts(found);
      });
    return () => {
      wanted = false;
    };
  }, [settings, texts]);
  return texts?.length === 0 ? NONE : counts;
}

const NO_MARKS: readonly WordingMark[] = [];

/** The weak wording of a text as it is being typed. `looked` is what {@link useWordingCounts} answers: once the basis was looked through. */
export function useMarks(id: RequirementId, text: string, looked: unknown): readonly WordingMark[] {
  const [marks, setMarks] = useState(NO_MARKS);
  useEffect(() => {
    let wanted = true;
    void worker()
      .marks(id, text)
      .then((found) => {
        if (wanted) setMarks(found);
      });
    return () => {
      wanted = false;
    };
  }, [id, looked, text]);
  return marks;
}
