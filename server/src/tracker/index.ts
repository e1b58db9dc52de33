export { readOutsideHosts, saveOutsideHosts } from './outsideHosts.ts';
export type { Story } from './storyTracker.ts';
export { STORIES_FILE, readStoriesFile, storiesFile } from './storiesFile.ts';
export { fetchStories, findDefects, noteTracker, readTrackerState } from './tracker.ts';
