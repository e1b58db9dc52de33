/** The chapters with a tab, in working order, and the letter that jumps there after g. */
export const CHAPTERS = [
  { path: 'basis', name: 'Basis', letter: 'b' },
  { path: 'conditions', name: 'Conditions', letter: 'k' },
  { path: 'cases', name: 'Cases', letter: 'c' },
  { path: 'scenarios', name: 'Scenarios', letter: 'f' },
  { path: 'shared', name: 'Shared', letter: 's' },
  { path: 'coverage', name: 'Coverage', letter: 'v' },
  { path: 'suites', name: 'Suites', letter: 'u' },
  { path: 'baselines', name: 'Baselines', letter: 'n' },
] as const;
export type ChapterPath = (typeof CHAPTERS)[number]['path'];
