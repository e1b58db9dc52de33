export { useCoveredDesign } from './useCoveredDesign.ts';
export { useLiveCoverage } from './useLiveCoverage.ts';
export { GapPreview } from './GapPreview.tsx';
export { untoldWords } from './untoldWords.ts';
