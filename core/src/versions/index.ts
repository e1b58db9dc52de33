export { asJson, canonicalText, isElementList, isRecord, sameJson, type Json, type JsonElement, type JsonRecord } from './json.ts';
export { applyDiff, diffContent, reverseDiff, unmoved, type ContentDiff, type FieldDiff } from './contentDiff.ts';
export { SIDES, mergeContent, type Conflict, type Choice, type Merge, type Side } from './merge.ts';
export { LONGEST_WORD_DIFF, diffWords, type WordChange } from './words.ts';
