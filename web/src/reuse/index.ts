export { Reach, UsedBy } from './UsedBy.tsx';
export { PinnedUsers } from './PinnedUsers.tsx';
export { SharedIndex } from './SharedIndex.tsx';
