import { useOutletContext } from 'react-router';
import type { FrameContext } from './Frame.tsx';

/** The project that is open and what the person may do in it. */
export function useFrame(): FrameContext {
  return useOutletContext<FrameContext>();
}
