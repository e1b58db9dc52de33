export { STORIES_FILE, readStoriesFile, storiesFile } from './storiesFile.ts';
export { fetchStories, findDefects, noteTracker, readTrackerState } from './tracker.ts';
