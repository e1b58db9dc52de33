import { useEffect, useRef, useState } from 'react';

interface Beside<I, O> {
  readonly input: I;
  readonly output: O;
}

/**
 * What `run` makes of the input, computed beside the page; null until there is a first answer. While a computation is
 * under way newer inputs wait, and only the newest of them is computed next. `run` keeps its identity.
 */
export function useBeside<I, O>(input: I, run: (input: I) => Promise<O>): Beside<I, O> | null {
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
      } finally {
        busy.current = false;
      }
    };
    void work();
  }, [input, run]);
  return answer;
}
