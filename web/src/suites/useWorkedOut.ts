import { useEffect, useState } from 'react';
import type { SuiteNews, SuiteQuestion } from './suite.worker.ts';

/** What is known so far of an answer; undefined while there is nothing yet. */
export interface WorkedOut<Found> {
  readonly found: Found | undefined;
  readonly state: 'working' | 'ended' | 'stopped' | 'failed';
  readonly stop: () => void;
}

interface Heard<Found> {
  readonly question: SuiteQuestion;
  readonly found?: Found | undefined;
  readonly state: WorkedOut<Found>['state'];
}

/** Works an answer out beside the page, from when it is asked for until it is stopped, or asked for something else, or goes. The question keeps its identity. */
export function useWorkedOut<Kind extends keyof SuiteNews>(question: Extract<SuiteQuestion, { readonly kind: Kind }>): WorkedOut<SuiteNews[Kind]['found']> {
  type Found = SuiteNews[Kind]['found'];
  const [heard, setHeard] = useState<Heard<Found>>({ question, state: 'working' });
  const now: Heard<Found> = heard.question === question ? heard : { question, state: 'working' };
  const { state } = now;
  useEffect(() => {
    if (state !== 'working') return undefined;
    const worker = new Worker(new URL('./suite.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<SuiteNews[Kind]>) => setHeard({ question, found: data.found, state: data.isLast ? 'ended' : 'working' });
    worker.onerror = () => setHeard((before) => ({ ...(before.question === question ? before : { question }), state: 'failed' }));
    worker.postMessage(question);
    return () => worker.terminate();
  }, [question, state]);
  return { found: now.found, state, stop: () => setHeard({ ...now, state: 'stopped' }) };
}
