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

/** Pages that are part of a chapter without standing under its address. */
const PART_OF: Readonly<Record<string, ChapterPath>> = { condition: 'conditions', phrasebook: 'scenarios', 'scenarios-twice': 'scenarios', reuse: 'shared', alike: 'shared', matrix: 'coverage', trend: 'coverage', counts: 'coverage', report: 'coverage', specification: 'coverage', 'hand-offs': 'suites' };

/** The chapter of the page at an address; undefined: it belongs to none. */
export function chapterAt(pathname: string): ChapterPath | undefined {
  const page = pathname.split('/')[2] ?? '';
  return CHAPTERS.find((c) => c.path === page)?.path ?? PART_OF[page];
}
