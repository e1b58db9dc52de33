export { Frame, initials } from './Frame.tsx';
export { PageFailed } from './PageFailed.tsx';
export { useFrame } from './useFrame.ts';
export { Spread } from './Spread.tsx';
export { WholeWidth } from './WholeWidth.tsx';
export { address } from './address.ts';
export { useCommands, type Command } from './commands.ts';
export { usePageName } from './pageName.ts';
export type { Past } from './PastBanner.tsx';
