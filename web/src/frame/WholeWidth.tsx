import { Columns2, Maximize2 } from 'lucide-react';
import { createContext, useContext } from 'react';
import { Button } from '../look/index.ts';

/** Whether the right page has the whole width, and the way to change it; null where pages stand below each other anyway. */
export const WholeWidthContext = createContext<{ readonly whole: boolean; readonly toggle: () => void } | null>(null);

/** Gives the right page the room of the left one, for a long table or diagram, and back. */
export function WholeWidth() {
  const state = useContext(WholeWidthContext);
  if (state === null) return null;
  const Icon = state.whole ? Columns2 : Maximize2;
  return (
    <Button onClick={state.toggle}>
      <Icon size={13} aria-hidden="true" />
      {state.whole ? 'Show both pages' : 'Use the whole width'}
    </Button>
  );
}
