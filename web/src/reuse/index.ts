export { Reach, UsedBy } from './UsedBy.tsx';
export { PinnedUsers } from './PinnedUsers.tsx';
export { ReuseGraphPage } from './graph/ReuseGraphPage.tsx';
