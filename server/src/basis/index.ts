export { saveSettings } from './settings.ts';
export { listBasisTexts } from './texts.ts';
export { listSuspectLinks, settleSuspectLinks } from './suspect.ts';
export { mergeRequirements, splitRequirement } from './splitMerge.ts';
