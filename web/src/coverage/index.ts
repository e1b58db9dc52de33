export { useLiveCoverage } from './useLiveCoverage.ts';
export { GapPreview } from './GapPreview.tsx';
export { CoverageChapter } from './CoverageChapter.tsx';
export { useCoveredDesign } from './useCoveredDesign.ts';
export { untoldWords } from './untoldWords.ts';
