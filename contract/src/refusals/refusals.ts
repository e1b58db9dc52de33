/** Of each refusal of a family the status of the answer, and what is said: what happened, what was kept and what to do. */
export type Refusals<R extends { readonly code: string }> = { readonly [C in R['code']]: { readonly status: number; readonly sentence: (refusal: Extract<R, { readonly code: C }>) => string } };
