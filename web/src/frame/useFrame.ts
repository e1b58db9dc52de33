import { createContext, useContext, useMemo } from 'react';
import { useOutletContext } from 'react-router';
import type { FrameContext } from './Frame.tsx';

/** Whether what is open is in a module that others keep. */
export const KeptContext = createContext(false);

/** The project that is open and what the person may do in it: with what is open, where they stand within its page. */
export function useFrame(): FrameContext {
  const frame = useOutletContext<FrameContext>();
  const isKept = useContext(KeptContext);
  return useMemo(() => (isKept ? { ...frame, canEdit: false } : frame), [frame, isKept]);
}
