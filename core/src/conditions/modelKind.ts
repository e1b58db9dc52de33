/** How conditions can be exercised. In a file of its own: lists need the kinds, and nothing of what models compute. */
export const MODEL_KINDS = ['plain', 'valueRanges', 'decisionTable', 'stateTransitions', 'combination'] as const;
export type ModelKind = (typeof MODEL_KINDS)[number];
