/** What a clone takes along besides the texts, the steps and the parameters. */
export const CLONED_PARTS = ['rows', 'covers', 'tags', 'owner', 'defects', 'dependsOn'] as const;
export type ClonedPart = (typeof CLONED_PARTS)[number];
