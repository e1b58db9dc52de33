import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';

interface Beside<I, O> {
  readonly input: I;
  readonly output: O;
}

/**
 * What `run` makes of the input, computed beside the page; null until there is a first answer. While a computation is
 * under way newer inputs wait, and only the newest of them is computed next. `run` keeps its identity.
 */
export function useBeside<I, O>(input: I, run: (input: I) => Promise<O>): Beside<I, O> | null {
  const [turn, setTurn] = useState(0);
  const [answer, setAnswer] = useState<Beside<I, O> | null>(null);
  const wanted = useRef({ input, run });
  const busy = useRef(false);
  useEffect(() => {
    wanted.current = { input, run };
    if (busy.current) return;
    busy.current = true;
    const work = async (): Promise<void> => {
      try {
        for (;;) {
          const now = wanted.current;
          const output = await now.run(now.input);
          setAnswer({ input: now.input, output });
          if (wanted.current === now) return;
        }
      } catch (error) {
        // What is shown stays as it was; nobody is to wait for what will not come.
        toast.error(`What follows from the last edit could not be computed: ${error instanceof Error ? error.message : String(error)}. What you typed is kept.`, { id: 'beside', duration: 15_000, action: { label: 'Try again', onClick: () => setTurn((n) => n + 1) } });
      } finally {
        busy.current = false;
      }
    };
    void work();
  }, [input, run, turn]);
  return answer;
}
